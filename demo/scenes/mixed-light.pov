// Ashglaze 13: mixed light. A cool window at the left, a tungsten lamp over the table, a greenish tube at the back.
#version 3.7;
#include "common.inc"
SceneSettings()

camera { location <0.2, 3.8, -13> look_at <-0.3, 3.2, 0> angle 52 right x * image_width / image_height }

#declare Day = <0.78, 0.95, 1.25>; #declare Bulb = <1.55, 0.86, 0.36>; #declare Tube = <0.82, 1.15, 0.78>;
light_source { <-11, 6, -1.5> color rgb Day * 1.0 area_light <0, 4.5, 0>, <0, 0, 4>, 6, 6 adaptive 1 jitter }
light_source { <3.2, 5.1, -0.4> color rgb Bulb * 2.0 area_light <0.5, 0, 0>, <0, 0, 0.5>, 4, 4 adaptive 1 jitter fade_distance 3 fade_power 2 }
light_source { <0, 7.3, 6.8> color rgb Tube * 0.85 area_light <6, 0, 0>, <0, 0, 0.3>, 8, 2 adaptive 1 jitter fade_distance 4 fade_power 2 }
sphere { 0, 80 hollow pigment { rgb 0.012 } finish { ambient 0 diffuse 0 emission 1 } no_shadow }

plane { y, 0 Wood(<0.20, 0.13, 0.08>, <0.11, 0.07, 0.045>, <0, 0, 0>) }
box { <-20, 0, 9>, <20, 12, 9.4> Plaster(<0.46, 0.45, 0.42>) }
difference { box { <-7.4, 0, -30>, <-7, 12, 9> } box { <-8, 2.4, 0.6>, <-6, 7.4, 6.6> } box { <-8, 2.4, -7>, <-6, 7.4, -0.6> } Plaster(<0.45, 0.43, 0.40>) }
box { <-20, 9.5, -30>, <20, 9.7, 9> Plaster(<0.42, 0.41, 0.39>) }
// The window's frame and what is seen through it.
union { box { <-7.3, 2.4, 3.5>, <-7.1, 7.4, 3.7> } box { <-7.3, 4.9, 0.6>, <-7.1, 5.05, 6.6> } pigment { rgb <0.5, 0.48, 0.44> } }
light_source { <-7.6, 5, 3.4> color rgb Day * 0.55 area_light <0, 4, 0>, <0, 0, 5>, 6, 6 adaptive 1 jitter fade_distance 6 fade_power 1 }
box { <-14, -2, -12>, <-13.8, 14, 12> pigment { rgb Day * 3.4 } finish { ambient 0 diffuse 0 emission 1 } no_shadow }
// The tube and its trough; the lamp's shade, its bulb and cord.
cylinder { <-2.9, 7.55, 6.8>, <2.9, 7.55, 6.8>, 0.10 pigment { rgb Tube * 9 } finish { ambient 0 diffuse 0 emission 1 } no_shadow }
box { <-3.1, 7.68, 6.6>, <3.1, 7.8, 7.0> pigment { rgb 0.5 } no_shadow }
cone { <3.2, 5.05, -0.4>, 0.95, <3.2, 5.75, -0.4>, 0.30 open texture { pigment { rgb <0.03, 0.10, 0.07> } finish { diffuse 0.8 specular 0.4 roughness 0.02 } } interior_texture { pigment { rgb 0.75 } finish { diffuse 0.9 } } }
sphere { <3.2, 5.12, -0.4>, 0.22 pigment { rgb Bulb * 22 } finish { ambient 0 diffuse 0 emission 1 } no_shadow }
cylinder { <3.2, 5.7, -0.4>, <3.2, 9.5, -0.4>, 0.03 pigment { rgb 0.02 } }
// Shelves at the back with glaze buckets and test tiles.
#local S = seed(7);
union { box { <-7.5, 3.2, 7.6>, <7.5, 3.4, 9> } box { <-7.5, 5.4, 7.6>, <7.5, 5.6, 9> } Wood(<0.30, 0.21, 0.13>, <0.18, 0.115, 0.07>, <0, 90, 0>) }
#local I = 0;
#while (I < 11)
  cylinder { <0, 0, 0>, <0, 1.1 + 0.3 * rand(S), 0>, 0.5 pigment { rgb <0.20 + 0.4 * rand(S), 0.20 + 0.35 * rand(S), 0.20 + 0.35 * rand(S)> } finish { diffuse 0.85 specular 0.1 } translate <-6.8 + 1.36 * I, 3.4, 8.3> }
  box { <-0.42, 0, 0>, <0.42, 0.9, 0.06> Glaze(<0.05 + 0.4 * rand(S), 0.05 + 0.3 * rand(S), 0.04 + 0.34 * rand(S)>, <0.3, 0.3, 0.25>, 0.3, 0.8) rotate x * 12 translate <-6.8 + 1.36 * I, 5.6, 8.1> }
  #local I = I + 1;
#end
// The table, ware in all three lights, brushes, the card by the window.
box { <-6.4, 1.35, -2.6>, <6.6, 1.6, 2.4> Wood(<0.34, 0.24, 0.15>, <0.20, 0.13, 0.08>, <0, 90, 0>) }
box { <-6, 0, -2.2>, <-5.5, 1.35, -1.7> pigment { rgb <0.13, 0.09, 0.06> } } box { <5.7, 0, -2.2>, <6.2, 1.35, -1.7> pigment { rgb <0.13, 0.09, 0.06> } }
object { MoonForm Glaze(<0.64, 0.63, 0.60>, <0.58, 0.57, 0.54>, 0.5, 0.7) scale 0.95 translate <-3.3, 1.6, 0.4> }
object { MoonForm Glaze(<0.64, 0.63, 0.60>, <0.58, 0.57, 0.54>, 0.5, 0.7) scale 0.95 translate <3.1, 1.6, 0.5> }
object { JarForm Glaze(<0.03, 0.09, 0.30>, <0.10, 0.22, 0.46>, 0.4, 0.9) scale 0.9 translate <0.3, 1.6, 1.0> }
object { BowlForm Glaze(<0.34, 0.05, 0.025>, <0.34, 0.13, 0.04>, 0.3, 1) scale 0.85 translate <0.8, 1.6, -1.1> }
object { CupForm RawClay(<0.40, 0.22, 0.14>) scale 0.9 translate <5.2, 1.6, -0.6> }
#local I = 0; #while (I < 6) cylinder { 0, <0.5 * (rand(S) - 0.5), 1.9, 0.4 * (rand(S) - 0.5)>, 0.035 pigment { rgb <0.45, 0.28, 0.12> * (0.5 + rand(S)) } translate <5.2, 1.9, -0.6> } #local I = I + 1; #end
union { #local I = 0; #while (I < 5) object { BowlForm RawClay(<0.42, 0.34, 0.26> * (1 + 0.05 * sin(3 * I))) scale <0.7, 0.6, 0.7> rotate y * I * 50 translate y * I * 0.26 } #local I = I + 1; #end translate <-1.5, 1.6, -0.9> }
object { GreyCard scale 1.1 rotate x * 12 rotate y * 24 translate <-4.9, 1.6, -1.5> }
