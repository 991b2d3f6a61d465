// The wind vane against the sky, so close that its arrow leaves the frame.
#include "weatherworks.inc"
#include "sea.inc"
Settings(rgb <0.5, 0.62, 0.8> * 0.9)
camera { location <-1.0, 0.9, -8.6> look_at <-0.35, 3.55, 0> angle 34 right x * image_width / image_height }
DaySky(1.0)
light_source { <-300, 260, -340> rgb <1.35, 1.2, 1.0> * 1.3 }
object { WindVane(BrassAged, 14) rotate y * 10 translate <1.15, 0, 0> }
