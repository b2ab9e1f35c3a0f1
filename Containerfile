# Dial Back in a container: built in one stage, served from another. docs/deploy.md tells how.
FROM docker.io/library/node:20-bookworm-slim AS front
WORKDIR /src/frontend
COPY frontend/package.json frontend/package-lock.json ./
RUN npm ci --no-audit --no-fund
COPY frontend/ ./
RUN npx vite build --logLevel warn

FROM docker.io/library/python:3.11-slim-bookworm
WORKDIR /opt/dialback
COPY requirements.lock pyproject.toml LICENSE README.md ./
RUN pip install --no-cache-dir --require-hashes -r requirements.lock
COPY dialback/ ./dialback/
COPY --from=front /src/dialback/web/static/ ./dialback/web/static/
RUN pip install --no-cache-dir --no-deps --no-build-isolation -e . \
    && useradd --create-home dialback && install -d -o dialback -m 0700 /data
USER dialback
ENV DIALBACK_DATA=/data/house.sqlite
VOLUME /data
EXPOSE 8765
ENTRYPOINT ["dialback"]
CMD ["serve"]
