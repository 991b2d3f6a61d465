# An image of the folder that ./package makes:  ./package && podman build -t pantomet .
# It runs as a user without rights and writes to /data alone:
#   podman run --read-only --tmpfs /tmp --cap-drop all --security-opt no-new-privileges -v pantomet-data:/data -p 5460:5460 pantomet
# Another base image is given by --build-arg BASE=...; it needs glibc, and Chromium for page checks.
ARG BASE=debian:stable-slim
FROM ${BASE}
ARG RUNTIME=linux-x64
# Page checks need a browser; without them --build-arg PACKAGES= leaves it out.
ARG PACKAGES="chromium-headless-shell util-linux"
RUN if [ -n "${PACKAGES}" ]; then apt-get update -qq && apt-get install -y -qq --no-install-recommends ${PACKAGES} && rm -rf /var/lib/apt/lists/*; fi
RUN useradd --uid 10001 --user-group --no-create-home --home-dir /data --shell /usr/sbin/nologin pantomet \
  && mkdir /data && chown pantomet:pantomet /data && chmod 700 /data
COPY artifacts/packages/pantomet-${RUNTIME} /opt/pantomet
USER 10001:10001
WORKDIR /data
VOLUME /data
EXPOSE 5460
ENV MALLOC_ARENA_MAX=2 DOTNET_EnableDiagnostics=0
HEALTHCHECK --interval=30s --timeout=6s --start-period=30s CMD ["/opt/pantomet/pantomet", "health"]
# Backups lie beside the data, in a folder of their own in the same volume; name another volume to keep them apart.
ENTRYPOINT ["/opt/pantomet/pantomet", "serve", "--data", "/data/pantomet", "--backups", "/data/backups", "--host", "0.0.0.0"]
