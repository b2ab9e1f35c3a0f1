"""Blueprints of the API: one per place, all under ``/api``."""

from __future__ import annotations

from flask_openapi3 import APIBlueprint


def blueprint(name: str, module: str, prefix: str = "") -> APIBlueprint:
    """The blueprint of a place; its operations are called by the names of their functions."""
    return APIBlueprint(
        name, module, url_prefix=f"/api{prefix}", operation_id_callback=_function_name
    )


def _function_name(*, bp_name: str, name: str, path: str, method: str) -> str:
    return name
