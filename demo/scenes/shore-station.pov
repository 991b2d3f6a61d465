// The shore station on its rock, by day, from across the water.
#include "weatherworks.inc"
#include "sea.inc"
Settings(rgb <0.50, 0.62, 0.80> * 0.9)
camera { location <-4, 4.6, -58> look_at <5, 6.0, 0> angle 40 right x * image_width / image_height }
DaySky(1.0)
light_source { <-400, 320, -330> rgb <1.35, 1.22, 1.02> * 1.25 }
Sea(0, 0.55)
object { Rock(6.6, 12, 1.15) scale <2.1, 1, 1.3> texture { WetRock } translate <12, -0.6, 4> }
object { Rock(2.2, 4, 1.2) scale <1.8, 1, 1> texture { WetRock } translate <-4.5, -0.5, 1> }
object { Rock(1.3, 8, 1.2) scale <1.6, 1, 1> texture { WetRock } translate <-15, -0.3, -14> }
object { Rock(3.2, 23, 1.5) scale <2.2, 1, 1> texture { WetRock } translate <-18, -2.0, -36> }
object { Rock(9, 31, 1.6) scale <5, 1, 2> texture { RockTexture } translate <-110, -5, 190> }
object { Station(0) rotate y * -16 translate <12, 6.1, 2> }
fog { fog_type 2 fog_offset 0 fog_alt 5 distance 330 color rgb <0.56, 0.63, 0.69> }
