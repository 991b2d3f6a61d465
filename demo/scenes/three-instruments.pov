// Rain gauge, barometer and anemometer on the oak table, grey behind them.
#include "weatherworks.inc"
Settings(rgb 0.55)
camera { location <-0.5, 3.3, -12.5> look_at <0.1, 1.45, 0> angle 36 right x * image_width / image_height }
SoftBox(<-8, 7.5, -4>, <0, 1, 0>, 5, 5, 2.0, rgb <1, 0.96, 0.9>)
SoftBox(<8, 5, -6>, <0, 1, 0>, 3, 6, 0.55, rgb <0.85, 0.92, 1>)
sky_sphere { pigment { rgb <0.16, 0.17, 0.18> } }
plane { -z, -7 pigment { bozo turbulence 1 octaves 5 scale 5 color_map { [0 rgb <0.16, 0.19, 0.20>] [1 rgb <0.23, 0.26, 0.27>] } } finish { ambient 0.3 diffuse 0.8 } }
object { PlankTable(8, 1.1, 1.0) }
object { RainGauge(Brass) scale 0.98 rotate y * 10 translate <-3.1, 0, 0.6> }
object { MeasuringGlass(0.9) scale 0.8 translate <-1.72, 0.05, -0.7> }
union {
  object { Barometer(-0.2, BrassAged) scale 1.15 rotate x * 10 translate y * 1.3 }
  difference { box { <-0.8, 0, 0.15>, <0.8, 0.36, 0.9> } cylinder { <0, 1.3, -1>, <0, 1.3, 3>, 1.16 } texture { Oak(9, 0.6) } }
  rotate y * -4 translate <0.3, 0, 0.2>
}
object { Anemometer(Brass, 24) scale 1.12 rotate y * -8 translate <3.6, 0, 0.8> }
object { Gear(0.3, 20, 0.1, 5) rotate y * 12 translate <1.6, 0.0, -1.5> texture { BrassAged } }
object { Screw(0.08) rotate x * 60 translate <2.0, 0.02, -1.9> texture { Steel } }
object { Screw(0.08) rotate x * 80 rotate y * 70 translate <1.1, 0.02, -2.1> texture { Steel } }
