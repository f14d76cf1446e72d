# An image of Sandboa: the front end is built, then the wheel, then what runs. See docs/running.md.
FROM node:22-slim AS frontend
WORKDIR /sandboa
COPY frontend frontend
RUN mkdir -p src/sandboa/web && cd frontend && npm ci --no-audit --no-fund && npm run build

FROM python:3.13-slim AS wheel
WORKDIR /sandboa
COPY pyproject.toml README.md LICENSE ./
COPY src src
COPY --from=frontend /sandboa/src/sandboa/web/static src/sandboa/web/static
RUN pip wheel --no-cache-dir --no-deps --wheel-dir /wheels .

FROM python:3.13-slim
COPY requirements.txt /tmp/requirements.txt
RUN pip install --no-cache-dir -r /tmp/requirements.txt
COPY --from=wheel /wheels /tmp/wheels
RUN pip install --no-cache-dir --no-deps /tmp/wheels/*.whl && rm -r /tmp/wheels /tmp/requirements.txt
# The house belongs to nobody else of the image.
RUN useradd --create-home keeper && mkdir /house && chown keeper /house && chmod 700 /house
USER keeper
ENV SANDBOA_DATA=/house SANDBOA_HOST=0.0.0.0
VOLUME /house
EXPOSE 8350 8351
HEALTHCHECK --interval=60s --timeout=10s --start-period=60s CMD \
  ["python", "-c", "import ssl,urllib.request as u; c=ssl._create_unverified_context(); h='https' if __import__('os').environ.get('SANDBOA_HOME') else 'http'; u.urlopen(h+'://127.0.0.1:8350/healthz', context=c, timeout=8)"]
ENTRYPOINT ["sandboa"]
CMD ["serve"]
