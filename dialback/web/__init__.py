"""The JSON API and the built front end, by Flask. Thin: the core decides, the store keeps."""
