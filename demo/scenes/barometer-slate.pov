// The barometer on a slate shelf against a limewashed wall.
#include "weatherworks.inc"
Settings(rgb 0.55)
camera { location <0.9, 2.0, -8.2> look_at <0.25, 1.25, 0> angle 34 right x * image_width / image_height }
SoftBox(<-6, 6, -5>, <0, 1, 0>, 4, 4, 1.7, rgb <1, 0.97, 0.92>)
SoftBox(<7, 3, -4>, <0, 1, 0>, 2, 5, 0.45, rgb <0.82, 0.9, 1>)
sky_sphere { pigment { rgb <0.20, 0.21, 0.23> } }
plane { -z, -1.7 texture { Limewash } }
box { <-30, -0.6, -2.4>, <30, 0, 3> texture { Slate } }
object { Barometer(0.35, Brass) rotate x * 8 rotate y * -9 translate <0, 1.08, 0> }
// a stand of oak behind it
difference { box { <-0.9, 0, 0.1>, <0.9, 0.34, 0.75> } cylinder { <0, 1.08, -1>, <0, 1.08, 2>, 1.0 } texture { Oak(5, 0.8) } }
union {
  #for (I, 0, 2) cylinder { <0, I * 0.13, 0>, <0, I * 0.13 + 0.11, 0>, 0.62 - I * 0.09 texture { Oak(20 + I, 0.9) } } #end
  translate <2.5, 0, 0.4>
}
object { MeasuringGlass(0.7) scale 0.62 translate <2.5, 0.40, 0.4> }
object { Gear(0.34, 22, 0.09, 5) rotate y * 12 translate <-1.85, 0.0, -0.75> texture { BrassAged } }
object { Gear(0.2, 14, 0.09, 4) translate <-1.35, 0.0, -1.15> texture { Brass } }
