# An image of the folder that ./package makes:  ./package && podman build -t pantomet .
# It runs as a user without rights and writes to /data alone:
#   podman run --read-only --tmpfs /tmp --cap-drop all --security-opt no-new-privileges --security-opt seccomp=deploy/seccomp.json -v pantomet-data:/data -p 5460:5460 pantomet
# The profile lets the browser of page checks make its own sandbox; without page checks the engine's own profile is the tighter one.
# Another base image is given by --build-arg BASE=...; it needs glibc, and Chromium for page checks.
ARG BASE=debian:stable-slim
FROM ${BASE}
ARG RUNTIME=linux-x64
# Page checks need a browser; without them --build-arg PACKAGES= leaves it out. The program itself needs OpenSSL, and the certificates of others to reach them.
ARG PACKAGES="chromium-headless-shell util-linux"
RUN apt-get update -qq && apt-get install -y -qq --no-install-recommends ca-certificates openssl ${PACKAGES} && rm -rf /var/lib/apt/lists/*
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
