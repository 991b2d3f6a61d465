// The barometer for the shop: square, on a plain light sweep.
#include "weatherworks.inc"
Settings(rgb 0.7)
camera { location <0, 1.5, -9.5> look_at <0, 1.22, 0> angle 24 right x * image_width / image_height }
SoftBox(<-6, 6, -5>, <0, 1, 0>, 5, 5, 1.7, rgb 1)
SoftBox(<6, 5, -5>, <0, 1, 0>, 4, 5, 1.5, rgb 1)
sky_sphere { pigment { rgb 0.62 } }
object { Sweep(3, texture { pigment { rgb 0.78 } finish { ambient 0.3 diffuse 0.95 } }) }
object { Barometer(0.62, Brass) translate y * 1.06 }
difference { box { <-0.7, 0, 0.1>, <0.7, 0.26, 0.7> } cylinder { <0, 1.06, -1>, <0, 1.06, 2>, 0.99 } texture { Oak(15, 1.0) } }
