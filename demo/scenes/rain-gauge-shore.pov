// The rain gauge on a boulder above the sea; tall.
#include "weatherworks.inc"
#include "sea.inc"
Settings(rgb <0.5, 0.62, 0.8> * 0.9)
camera { location <-2.0, 3.4, -10.5> look_at <0.1, 1.25, 0> angle 37 right x * image_width / image_height }
DaySky(1.0)
light_source { <-300, 300, -240> rgb <1.3, 1.2, 1.05> * 1.2 }
plane { y, -9 pigment { rgb <0.012, 0.045, 0.06> } finish { ambient 0.3 diffuse 0.55 specular 0.35 roughness 0.01 reflection { 0.03, 0.7 fresnel on } conserve_energy } interior { ior 1.33 }
  normal { average normal_map { [1 bumps 0.6 scale <7, 1, 2.2>] [0.6 bumps 0.5 scale <1.5, 1, 0.6>] } } }
object { Rock(3.0, 12, 1.9) scale <1.5, 0.8, 1.2> rotate y * 40 texture { RockTexture scale 0.5 } translate <0.6, -1.55, 0.6> }
box { <-1.5, -0.35, -1.3>, <1.5, 0, 1.3> texture { Slate } rotate y * 14 }
object { RainGauge(Brass) rotate y * -6 translate y * 0.0 }
object { Rock(2.2, 9, 1.3) texture { RockTexture scale 0.5 } translate <5.4, -3.8, 5> }
object { Rock(9, 31, 1.6) scale <4, 0.7, 2> texture { RockTexture } translate <40, -11, 130> }
fog { fog_type 2 fog_offset -9 fog_alt 5 distance 240 color rgb <0.56, 0.63, 0.69> }
