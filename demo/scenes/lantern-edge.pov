// A lantern hangs at the right edge, the oak table runs off to the left.
#include "weatherworks.inc"
Settings(rgb 0.55)
camera { location <-1.9, 3.0, -11.5> look_at <-1.9, 2.1, 0> angle 42 right x * image_width / image_height }
SoftBox(<-10, 7, -3>, <0, 1, 1>, 4, 6, 2.2, rgb <0.92, 0.96, 1>)
sky_sphere { pigment { rgb <0.12, 0.125, 0.135> } }
plane { -z, -3.2 texture { Limewash pigment { bozo turbulence 0.9 octaves 6 scale 2.6 color_map { [0 rgb <0.20, 0.26, 0.27>] [1 rgb <0.27, 0.33, 0.33>] } } } }
object { PlankTable(7, 1.0, 0.85) }
object { StormLantern(Brass, 0.8) scale 1.02 rotate y * 24 translate <2.2, 0.02, 0> }
object { Barometer(0.1, BrassAged) scale 0.8 translate <-5.0, 3.2, 2.7> }
union {
  #for (I, 0, 3) box { <-1.1, I * 0.24, -0.75>, <1.1, I * 0.24 + 0.21, 0.75> pigment { rgb <0.10 + 0.05 * mod(I, 2), 0.03 + I * 0.02, 0.02 + I * 0.025> } finish { ambient 0.3 diffuse 0.75 specular 0.1 roughness 0.06 } normal { granite 0.1 scale 0.3 } rotate y * (I * 9 - 12) } #end
  translate <-3.8, 0, 0.5>
}
object { MeasuringGlass(1.2) scale 0.8 translate <-1.3, 0.05, 0.6> }
object { Gear(0.5, 26, 0.12, 6) translate <-0.9, 0, -1.3> texture { BrassAged } }
