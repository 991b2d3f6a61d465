#!/usr/bin/env bash
# Renders the demo scenes to PNG in ./rendered, one after the other, skipping what is there already.
# Needs Debian's povray and povray-includes. Takes about two hours on two cores; develop.sh turns the results into
# the JPEG originals of demo/pictures.
#   ./render.sh            every scene
#   ./render.sh NAME...    only these
set -euo pipefail
cd "$(dirname "$0")"
mkdir -p rendered
sizes="lantern-dusk:3000:4000 vane-sky:6000:4000 shore-station:4800:2700 barometer-plain:3000:3000
workshop-bench:3600:2400 rain-gauge-shore:3000:3750 anemometer-plain:3000:2400 barometer-slate:3000:2000
lantern-edge:3000:2250 vane-table:3000:3600 three-instruments:3000:2000"
for entry in $sizes; do
  IFS=: read -r name width height <<<"$entry"
  if [ $# -gt 0 ] && [[ " $* " != *" $name "* ]]; then continue; fi
  [ -f "rendered/$name.png" ] && continue
  povray "+I$name.pov" "+Orendered/$name.part.png" "+W$width" "+H$height" -D +L. >"rendered/$name.log" 2>&1
  mv "rendered/$name.part.png" "rendered/$name.png"
  echo "$name ${width}x${height}"
done
