// Ashglaze 15: from the air. The kiln sheds, boards with drying ware, the river; the camera banks.
#version 3.7;
#include "common.inc"
#include "outdoors.inc"
SceneSettings()

camera { location <-4, 34, -44> look_at <0, 2, 4> angle 54 right x * image_width / image_height }

light_source { <-60, 55, 10> color rgb <3.0, 2.7, 2.25> area_light <2, 0, 0>, <0, 0, 2>, 3, 3 adaptive 1 jitter }
light_source { <10, 80, -40> color rgb <0.15, 0.19, 0.26> area_light <50, 0, 0>, <0, 0, 50>, 6, 6 adaptive 1 jitter }
sphere { 0, 600 hollow pigment { gradient y scale 1200 translate -600 color_map { [0.5 rgb <1.0, 1.08, 1.2>] [0.6 rgb <0.55, 0.8, 1.3>] [1 rgb <0.2, 0.4, 0.95>] } } finish { ambient 0 diffuse 0 emission 0.6 } no_shadow }
fog { fog_type 1 distance 420 color rgb <0.55, 0.66, 0.80> }

plane { y, 0 texture { pigment { bozo scale 14 warp { turbulence 0.5 octaves 4 } pigment_map { [0.3 granite scale 2 color_map { [0 rgb <0.05, 0.085, 0.02>] [1 rgb <0.13, 0.17, 0.05>] }] [0.7 granite scale 2 color_map { [0 rgb <0.10, 0.11, 0.035>] [1 rgb <0.24, 0.22, 0.09>] }] } } normal { granite 0.4 scale 0.8 } finish { diffuse 0.9 } } }
// The yard, a road, the river with its banks.
box { <-24, -1, -16>, <22, 0.05, 20> Cobbles(<0.30, 0.27, 0.22>) }
box { <-3, -1, -90>, <1, 0.06, -16> texture { pigment { granite scale 2 color_map { [0 rgb 0.16] [1 rgb <0.30, 0.27, 0.22>] } } } }
sphere_sweep { cubic_spline 7, <80, 0, -90>, 6, <52, 0, -50>, 6, <38, 0, -8>, 6, <44, 0, 30>, 6.5, <30, 0, 70>, 7, <48, 0, 130>, 8, <60, 0, 180>, 9 tolerance 0.01 scale <1, 0.02, 1> texture { pigment { rgb <0.02, 0.05, 0.055> } normal { bumps 0.08 scale 1.2 } finish { diffuse 0.7 reflection { 0.05, 0.8 fresnel on } specular 0.5 roughness 0.01 } } interior { ior 1.33 } translate y * 0.02 }
// Fields beyond.
#local S = seed(5); #local I = 0;
#while (I < 22) box { <-1, -1, -1>, <1, 0.03 + 0.002 * I, 1> scale <10 + 12 * rand(S), 1, 8 + 12 * rand(S)> rotate y * (30 * rand(S)) texture { pigment { gradient x scale 1.2 color_map { [0 rgb <0.12 + 0.2 * rand(S), 0.16 + 0.12 * rand(S), 0.05>] [1 rgb <0.10 + 0.16 * rand(S), 0.12 + 0.1 * rand(S), 0.04>] } rotate y * 80 * rand(S) } finish { diffuse 0.9 } } translate <-110 + 130 * rand(S), 0, 40 + 130 * rand(S)> } #local I = I + 1; #end
// Sheds with tiled roofs.
#macro Shed(Long, Wide, High, Tone)
  union {
    box { <-Long, 0, -Wide>, <Long, High, Wide> Plaster(<0.52, 0.47, 0.38>) }
    prism { linear_sweep -Long - 0.5, Long + 0.5, 4, <-Wide - 0.7, 0>, <0, Wide * 0.72>, <Wide + 0.7, 0>, <-Wide - 0.7, 0> rotate <-90, 0, 0> rotate <0, 90, 0> translate y * High
      texture { pigment { brick pigment { color Tone * 0.4 }, pigment { bozo scale 0.8 color_map { [0 color Tone * 0.7] [1 color Tone * 1.25] } } brick_size <0.9, 0.9, 0.9> mortar 0.09 } finish { diffuse 0.9 } } }
    #local K = 0; #while (K < Long - 1) box { <-0.6, 1.0, -Wide - 0.05>, <0.6, 2.4, -Wide + 0.1> pigment { rgb <0.03, 0.04, 0.045> } finish { reflection 0.1 } translate x * (-Long + 1.6 + 2 * K) } #local K = K + 1.7; #end
  }
#end
object { Shed(9, 4, 4.2, <0.30, 0.13, 0.075>) translate <-11, 0, 13> }
object { Shed(6, 3.4, 3.6, <0.26, 0.14, 0.09>) rotate y * 90 translate <16, 0, 8> }
object { Shed(5, 3, 3.2, <0.33, 0.15, 0.085>) rotate y * 12 translate <-26, 0, -4> }
object { Shed(4, 3, 3.4, <0.20, 0.12, 0.09>) rotate y * -18 translate <24, 0, 26> }
// The bottle kiln and its smoke-black top.
lathe { cubic_spline 8, <3.6, -0.5>, <3.6, 0>, <3.7, 2.4>, <3.1, 5.2>, <1.7, 8.4>, <1.1, 10.6>, <1.25, 11.4>, <1.25, 11.8> texture { pigment { gradient y scale 12 pigment_map { [0.0 brick color rgb <0.2, 0.18, 0.15>, color rgb <0.30, 0.13, 0.08> brick_size <0.8, 0.35, 0.8> mortar 0.05 scale 1/12] [0.75 brick color rgb <0.2, 0.18, 0.15>, color rgb <0.26, 0.12, 0.08> brick_size <0.8, 0.35, 0.8> mortar 0.05 scale 1/12] [1 color rgb <0.05, 0.04, 0.035>] } } finish { diffuse 0.9 } } translate <4, 0, 12> }
// Boards with drying ware, in rows; jars; a cart; the card laid out big, for the air.
#local R = 0;
#while (R < 6)
  box { <-17, 0.6, -0.55>, <-2, 0.75, 0.55> translate <0, 0, -11 + 2.7 * R> Wood(<0.34, 0.24, 0.15>, <0.20, 0.13, 0.08>, <0, 90, 0>) }
  #local C = 0; #while (C < 11)
    #switch (mod(R, 3))
      #case (0) object { BowlForm RawClay(<0.44, 0.36, 0.28> * (0.92 + 0.16 * rand(S))) scale 0.55 translate <-16.2 + 1.35 * C, 0.75, -11 + 2.7 * R> } #break
      #case (1) object { JarForm RawClay(<0.42, 0.21, 0.13> * (0.9 + 0.2 * rand(S))) scale 0.55 translate <-16.2 + 1.35 * C, 0.75, -11 + 2.7 * R> } #break
      #case (2) object { JarForm Glaze(<0.03, 0.10 + 0.02 * C, 0.30 - 0.015 * C>, <0.10, 0.25, 0.44>, 0.3, 0.9) scale 0.55 translate <-16.2 + 1.35 * C, 0.75, -11 + 2.7 * R> } #break
    #end
    #local C = C + 1; #end
  #local R = R + 1;
#end
#local I = 0; #while (I < 7) object { JarForm Glaze(<0.34 - 0.03 * I, 0.08 + 0.03 * I, 0.04>, <0.4, 0.3, 0.1>, 0.3, 0.8) scale 1.0 translate <5 + 1.9 * I, 0, -12.5 + 0.5 * mod(I, 2)> } #local I = I + 1; #end
object { GreyCard rotate x * 90 scale <4.6, 1, 4.6> translate <6.2, 0.12, -8.4> }
// Trees, two people at work: seen as far as one sees people from there.
#macro Person(Coat, At, Turn) union {
  sphere_sweep { linear_spline 2, <0, 1.05, 0>, 0.26, <0, 1.5, 0>, 0.22 pigment { rgb Coat } } sphere { <0, 1.86, 0>, 0.15 pigment { rgb <0.30, 0.17, 0.11> } } sphere { <0, 1.93, 0.03>, 0.15 pigment { rgb <0.05, 0.035, 0.03> } }
  cylinder { <-0.13, 0, 0>, <-0.11, 0.95, 0>, 0.11 pigment { rgb <0.06, 0.07, 0.10> } } cylinder { <0.13, 0, 0.1>, <0.11, 0.95, 0>, 0.11 pigment { rgb <0.06, 0.07, 0.10> } }
  sphere_sweep { linear_spline 3, <0.26, 1.5, 0>, 0.08, <0.34, 1.15, -0.2>, 0.07, <0.2, 1.1, -0.5>, 0.06 pigment { rgb Coat } } sphere_sweep { linear_spline 3, <-0.26, 1.5, 0>, 0.08, <-0.34, 1.15, -0.2>, 0.07, <-0.2, 1.1, -0.5>, 0.06 pigment { rgb Coat } }
  scale 1.5 rotate y * Turn translate At } #end
object { Person(<0.42, 0.10, 0.06>, <-0.6, 0, -6>, 70) } object { Person(<0.62, 0.60, 0.55>, <2.6, 0, -12>, -60) }
#local I = 0; #while (I < 16) object { Tree(6 + 4 * rand(S), 40 + I, <0.06 + 0.03 * rand(S), 0.10, 0.03>) translate <-46 + 8 * I * 0.9 - 6 * rand(S), 0, 30 + 16 * rand(S)> } #local I = I + 1; #end
#local I = 0; #while (I < 6) object { Tree(6 + 3 * rand(S), 80 + I, <0.07, 0.11, 0.035>) translate <-36 + 3 * rand(S), 0, -22 + 9 * I> } #local I = I + 1; #end
