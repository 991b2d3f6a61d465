// The storm lantern, lit, on the sea wall at dusk.
#include "weatherworks.inc"
Settings(rgb <0.10, 0.13, 0.22>)
camera { location <0.6, 2.7, -11.0> look_at <0, 2.35, 0> angle 33 right x * image_width / image_height }
sky_sphere { pigment { gradient y color_map { [0.0 rgb <0.30, 0.17, 0.12>] [0.08 rgb <0.24, 0.17, 0.17>] [0.3 rgb <0.07, 0.09, 0.16>] [1.0 rgb <0.015, 0.025, 0.06>] } }
  pigment { bozo turbulence 0.7 octaves 6 lambda 2.3 scale <1.4, 0.18, 1> color_map { [0 rgbt 1] [0.5 rgbt 1] [0.8 rgbt <0.04, 0.045, 0.07, 0.3>] [1 rgbt <0.02, 0.025, 0.05, 0.1>] } } }
light_source { <-60, 40, 20> rgb <0.16, 0.2, 0.32> }
// the sea
plane { y, -3.0 pigment { rgb <0.008, 0.014, 0.02> } finish { ambient 0.3 diffuse 0.6 specular 0.4 roughness 0.02 reflection { 0.05, 0.8 fresnel on } conserve_energy } interior { ior 1.33 }
  normal { average normal_map { [1 bumps 0.9 scale <2.6, 1, 0.7>] [0.6 bumps 0.6 scale <0.7, 1, 0.25>] } } }
// an islet on the skyline
isosurface { function { f_sphere(x, y * 1.7, z, 3) - f_noise3d(x * 1.1, y * 1.4, z * 1.1) * 1.5 - f_noise3d(x * 4, y * 5, z * 4) * 0.3 } contained_by { sphere { 0, 5 } } max_gradient 5 scale <3.4, 1.2, 2> translate <-19, -3.6, 58> pigment { rgb 0.02 } finish { ambient 0.3 diffuse 0.8 } }
// the wall's coping stones
#for (I, -4, 4)
  superellipsoid { <0.08, 0.08> scale <1.08, 0.42, 1.7> rotate y * (I * 37.1 - floor(I * 37.1 / 3) * 3 - 1.5) * 0.6 translate <I * 2.2 + 0.75, -0.42, 0.2> texture { Slate translate I * 7.3 } }
#end
object { StormLantern(BrassAged, 1) scale 0.98 rotate y * 28 }
