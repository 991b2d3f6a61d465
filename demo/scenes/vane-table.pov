// The herring vane before it goes up: upright on the table, linen behind.
#include "weatherworks.inc"
Settings(rgb 0.55)
camera { location <-1.5, 3.6, -14> look_at <0, 2.5, 0> angle 30 right x * image_width / image_height }
SoftBox(<-7, 7, -6>, <0, 2, 0>, 5, 5, 2.3, rgb <1, 0.97, 0.93>)
SoftBox(<8, 4, -3>, <0, 2, 0>, 2, 6, 0.7, rgb <0.9, 0.95, 1>)
sky_sphere { pigment { rgb 0.2 } }
plane { -z, -4.2 texture { Linen rotate x * 90 } }
object { PlankTable(11, 1.1, 1.15) }
object { WindVane(Brass, 10) rotate y * -12 translate <0.1, 0, 0.3> }
object { Gear(0.3, 20, 0.1, 5) translate <2.0, 0.0, -1.3> texture { BrassAged } }
