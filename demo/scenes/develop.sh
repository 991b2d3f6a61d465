#!/usr/bin/env bash
# Turns the rendered scenes into the demo's originals: a lens's slight softness, film grain, JPEG at 90 to 95, camera-like
# names, density labels, one orientation tag, one wide colour profile, one location. All data in the tags is made up.
# Needs Debian's imagemagick, libimage-exiftool-perl and colord-data.
set -euo pipefail
cd "$(dirname "$0")"
out=../pictures
wide=/usr/share/color/icc/colord/AdobeRGB1998.icc
plain=/usr/share/color/icc/colord/sRGB.icc
mkdir -p "$out"

# scene, name, quality, grain in percent, density label, further ImageMagick arguments
develop() {
  local scene=$1 name=$2 quality=$3 grain=$4 ppi=$5
  shift 5
  [ -f "rendered/$scene.png" ] || { echo "not rendered yet: $scene"; return; }
  local size
  size=$(identify -format '%wx%h' "rendered/$scene.png")
  # The grain is one grey layer, softened to a few pixels, strongest in the middle tones as film's is.
  convert "rendered/$scene.png" -alpha off -blur 0x0.75 \
    \( -size "$size" -seed 7 xc:'gray(50%)' -attenuate 2.4 +noise Gaussian -colorspace Gray -blur 0x0.8 +level "$((50 - grain))%,$((50 + grain))%" \) \
    -compose SoftLight -composite "$@" -density "$ppi" -units PixelsPerInch -sampling-factor 2x2 -quality "$quality" "$out/$name"
  exiftool -q -overwrite_original -Make='Skerry' -Model='Field Camera 2' "$out/$name"
  printf '%s %s %s bytes\n' "$name" "$(identify -format '%wx%h' "$out/$name")" "$(stat -c %s "$out/$name")"
}

tag() { if [ -f "$out/$1" ]; then exiftool -q -overwrite_original "${@:2}" "$out/$1"; fi; }

develop barometer-slate DSC_0412.JPG 92 18 300
develop three-instruments DSC_0415.JPG 92 18 300
develop barometer-plain DSC_0423.JPG 93 15 300
develop rain-gauge-shore DSC_0431.JPG 91 18 300 -rotate -90
tag DSC_0431.JPG -n -Orientation=6 # lies on its side; the tag says how it is to be turned
develop vane-sky DSC_0440.JPG 90 18 300
develop workshop-bench DSC_0452.JPG 92 18 300 -gamma 1.3 -sigmoidal-contrast 3x45% -profile "$plain" -profile "$wide"
develop lantern-dusk IMG_2081.jpg 91 17 72
develop lantern-edge IMG_2087.jpg 92 18 72
develop anemometer-plain IMG_2102.jpg 93 15 72
develop vane-table IMG_2109.jpg 92 17 72
develop shore-station P1050233.JPG 91 18 180
tag P1050233.JPG -GPSLatitude=0.25 -GPSLatitudeRef=S -GPSLongitude=0.5 -GPSLongitudeRef=W # a point in the open sea
# A small copy, as it comes back from a chat: too small for a dense screen.
develop barometer-slate barometer-from-chat.jpg 90 7 72 -resize 900x600

# The drawings: a flat chart of 3000 x 3000 px, and the shop's mark as PNG beside its SVG. Needs Debian's librsvg2-bin.
rsvg-convert glass-falling-chart.svg -o "$out/glass-falling-chart.png"
rsvg-convert -w 1200 "$out/weatherworks-mark.svg" -o "$out/weatherworks-mark.png"
