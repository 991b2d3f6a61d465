// The bench of the workshop: parts, tools and half-made instruments under a window.
#include "weatherworks.inc"
Settings(rgb 0.55)
camera { location <0.4, 5.4, -11.5> look_at <0, 1.2, 0.4> angle 46 right x * image_width / image_height }
SoftBox(<-11, 8, 1>, <0, 0.5, 0>, 5, 7, 2.4, rgb <0.93, 0.97, 1>)
light_source { <5, 7, -6> rgb <1, 0.7, 0.42> * 0.30 area_light x * 1.5, y * 1.5, 4, 4 adaptive 1 jitter }
sky_sphere { pigment { rgb <0.10, 0.10, 0.11> } }
#for (I, -9, 9) box { <I * 1.3 + 0.01, -2, 3.4>, <I * 1.3 + 1.29, 14, 3.6> texture { Oak(300 + I, 0.42) rotate z * 90 } } #end
object { PlankTable(11, 1.1, 0.95) }
// hanging on the wall
object { Barometer(-0.6, Brass) scale 0.95 translate <-3.6, 3.5, 2.9> }
object { Barometer(0.5, BrassAged) scale 0.62 translate <-1.4, 3.9, 3.05> }
object { Gear(0.8, 34, 0.1, 6) rotate x * 90 translate <0.4, 3.6, 3.3> texture { BrassAged } }
#for (I, 0, 5)
  union {
    cylinder { 0, y * 1.1, 0.05 texture { Steel rotate z * 90 } }
    lathe { cubic_spline 8, <0, 1.0>, <0.06, 1.05>, <0.13, 1.15>, <0.10, 1.35>, <0.15, 1.65>, <0.13, 1.85>, <0, 1.95>, <0, 2.0> texture { Oak(50 + I, (mod(I, 2) = 0 ? 0.7 : 1.3)) rotate z * 90 } }
    scale 0.95 - I * 0.06 translate <1.9 + I * 0.55, 2.5, 3.1>
  }
#end
box { <1.6, 3.05, 2.9>, <5.0, 3.2, 3.4> texture { Oak(71, 0.7) } }
// standing on the bench
object { Anemometer(Brass, 40) scale 0.95 translate <3.6, 0, 0.6> }
object { RainGauge(BrassAged) scale 0.62 rotate z * 90 rotate y * 24 translate <-3.1, 0.44, -0.2> }
object { MeasuringGlass(0.8) scale 0.7 translate <-5.0, 0.04, 0.8> }
// an open movement in the middle
union {
  cylinder { 0, y * 0.08, 1.15 texture { Brass } }
  object { Gear(0.55, 30, 0.09, 6) translate <-0.3, 0.22, 0.1> texture { Brass } }
  object { Gear(0.34, 20, 0.09, 5) rotate y * 7 translate <0.58, 0.32, -0.1> texture { BrassAged } }
  object { Gear(0.22, 14, 0.09, 4) translate <0.2, 0.16, 0.68> texture { Steel } }
  #for (I, 0, 2) cylinder { 0, y * 0.62, 0.07 translate x * 1.0 rotate y * (I * 120 + 30) texture { Brass } } #end
  translate <0.2, 0.02, -1.2>
}
cylinder { y * 0.02, y * 0.06, 0.86 texture { Enamel } translate <2.3, 0, -1.9> }
#for (I, 0, 59) box { <-0.008, 0.061, 0.7>, <0.008, 0.066, 0.8> rotate y * I * 6 translate <2.3, 0, -1.9> texture { Ink } } #end
// tools lying about
union { cylinder { x * 0, x * 1.5, 0.05 texture { Steel } } lathe { cubic_spline 8, <0, -0.1>, <0.06, 0>, <0.15, 0.15>, <0.11, 0.4>, <0.16, 0.75>, <0.13, 1.0>, <0, 1.1>, <0, 1.2> rotate z * 90 texture { Oak(91, 1.0) } } rotate y * 28 translate <-1.5, 0.15, -2.2> }
union { box { <0, -0.03, -0.1>, <1.9, 0.03, 0.1> texture { Steel } } cylinder { -x * 0.9, x * 0, 0.11 texture { Oak(93, 0.6) } } rotate y * -20 translate <3.9, 0.11, -1.5> }
#local R = seed(7);
#for (I, 0, 26)
  object { Screw(0.045 + rand(R) * 0.04) rotate x * (40 + rand(R) * 50) rotate y * rand(R) * 360 translate <0.2 + (rand(R) - 0.3) * 4.4, 0.03, -2.5 + (rand(R) - 0.5) * 1.3> texture { #if (rand(R) > 0.5) Steel #else Brass #end } }
#end
#for (I, 0, 4) cylinder { <-6, 0.08, 0>, <-2.6, 0.08, 0>, 0.07 rotate y * (I * 2 - 4) translate <0.2, 0, 1.5 + I * 0.17> texture { Brass } } #end
