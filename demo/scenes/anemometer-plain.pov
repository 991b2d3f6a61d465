// The anemometer for the shop, on a plain sweep, its cups spread.
#include "weatherworks.inc"
Settings(rgb 0.9)
camera { location <-0.5, 2.9, -10.5> look_at <0, 1.3, 0> angle 27 right x * image_width / image_height }
SoftBox(<-6, 6, -5>, <0, 1, 0>, 5, 5, 2.0, rgb 1)
SoftBox(<7, 4, -3>, <0, 1, 0>, 3, 6, 1.2, rgb <0.95, 0.97, 1>)
sky_sphere { pigment { rgb 0.5 } }
object { Sweep(4, texture { pigment { rgb <0.52, 0.57, 0.60> } finish { ambient 0.3 diffuse 0.9 } }) }
object { Anemometer(Brass, 21) rotate y * 12 }
