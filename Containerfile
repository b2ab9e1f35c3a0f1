# Dial Back in a container: built in one stage, served from another. docs/deploy.md tells how, and
# how to hold both images to a digest.
ARG NODE_IMAGE=docker.io/library/node:24-bookworm-slim
ARG PYTHON_IMAGE=docker.io/library/python:3.11-slim-bookworm

FROM ${NODE_IMAGE} AS front
WORKDIR /src/frontend
COPY frontend/package.json frontend/package-lock.json ./
RUN npm ci --no-audit --no-fund
COPY frontend/ ./
RUN npx vite build --logLevel warn

FROM ${PYTHON_IMAGE}
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
HEALTHCHECK --interval=30s --timeout=5s --start-period=30s CMD \
    ["python", "-c", "import urllib.request; urllib.request.urlopen('http://127.0.0.1:8765/api/health', timeout=4)"]
ENTRYPOINT ["dialback"]
# Reached from outside of the container, and so not before there is an owner's account.
CMD ["serve", "--host", "0.0.0.0"]
