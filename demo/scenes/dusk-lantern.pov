// Ashglaze 8: dusk outside the shop, a warm lantern and a lit window under a blue sky.
#version 3.7;
#include "common.inc"
#include "outdoors.inc"
SceneSettings()

camera { location <-0.6, 3.2, -15> look_at <0.2, 3.0, 0> angle 46 right x * image_width / image_height }

#declare Warm = <1.0, 0.56, 0.22>;
light_source { <-3.6, 4.6, 0.2> color rgb Warm * 2.6 area_light <0.4, 0, 0>, <0, 0.4, 0>, 4, 4 adaptive 1 jitter fade_distance 3 fade_power 2 }
light_source { <4.4, 3.4, 5.4> color rgb Warm * 1.0 area_light <2.6, 0, 0>, <0, 2.2, 0>, 4, 4 adaptive 1 jitter fade_distance 3 fade_power 2 }
light_source { <-10, 40, -30> color rgb <0.045, 0.062, 0.105> area_light <30, 0, 0>, <0, 0, 30>, 6, 6 adaptive 1 jitter }
sphere { 0, 150 hollow pigment { gradient y scale 300 translate -150 color_map { [0.495 rgb <0.55, 0.24, 0.11>] [0.525 rgb <0.42, 0.25, 0.20>] [0.57 rgb <0.16, 0.19, 0.30>] [0.68 rgb <0.055, 0.085, 0.18>] [1 rgb <0.02, 0.035, 0.09>] } } finish { ambient 0 diffuse 0 emission 1 } no_shadow }

plane { y, 0 Cobbles(<0.17, 0.16, 0.145>) }
difference {
  box { <-0.4, 0, 4.6>, <30, 7.4, 6> }
  box { <2.6, 1.9, 4>, <6.2, 4.9, 5.6> } box { <8.2, 0, 4>, <10.6, 4.8, 5.4> }
  Plaster(<0.44, 0.41, 0.36>)
}
box { <2.5, 1.8, 5.5>, <6.3, 5.0, 5.6> pigment { gradient y scale 4 color_map { [0 rgb Warm * 2.2] [1 rgb Warm * 5] } } finish { ambient 0 diffuse 0 emission 1 } no_shadow }
union { box { <4.32, 1.9, 4.9>, <4.48, 4.9, 5.0> } box { <2.6, 3.5, 4.9>, <6.2, 3.62, 5.0> } pigment { rgb <0.10, 0.08, 0.06> } }
box { <8.2, 0, 5.3>, <10.6, 4.8, 5.5> Wood(<0.12, 0.08, 0.055>, <0.06, 0.04, 0.028>, <90, 0, 0>) }
object { BottleForm pigment { rgb 0.02 } scale 0.6 translate <3.2, 1.9, 5.2> } object { JarForm pigment { rgb 0.02 } scale 0.6 translate <5.3, 1.9, 5.2> }
box { <-1.0, 7.3, 3.6>, <30, 7.7, 12> pigment { rgb <0.15, 0.08, 0.06> } }
// The lantern on its post.
cylinder { <-3.6, 0, 0.6>, <-3.6, 5.6, 0.6>, 0.09 pigment { rgb <0.03, 0.028, 0.026> } finish { diffuse 0.7 specular 0.3 roughness 0.03 } }
cylinder { <-3.6, 5.4, 0.6>, <-3.6, 5.4, 0.1>, 0.06 pigment { rgb 0.03 } }
sphere { 0, 0.24 scale <1, 1.35, 1> translate <-3.6, 4.8, 0.1> pigment { rgb <1.0, 0.62, 0.28> * 34 } finish { ambient 0 diffuse 0 emission 1 } no_shadow }
union { box { <-0.34, 0.34, -0.34>, <0.34, 0.42, 0.34> } box { <-0.3, -0.42, -0.3>, <0.3, -0.34, 0.3> } translate <-3.6, 4.8, 0.1> pigment { rgb 0.03 } no_shadow }
// Under it: a table with the card and ware.
box { <-5.6, 1.5, -2.0>, <-0.6, 1.75, -0.2> Wood(<0.26, 0.165, 0.095>, <0.13, 0.075, 0.04>, <0, 90, 0>) }
box { <-5.3, 0, -1.7>, <-5.0, 1.5, -1.4> pigment { rgb <0.08, 0.05, 0.03> } } box { <-1.2, 0, -1.7>, <-0.9, 1.5, -1.4> pigment { rgb <0.08, 0.05, 0.03> } }
object { GreyCard scale 1.05 rotate x * 38 rotate y * 4 translate <-3.3, 1.75, -1.8> }
object { JugForm Glaze(<0.42, 0.40, 0.35>, <0.46, 0.44, 0.4>, 0.4, 0.9) scale 0.8 translate <-1.6, 1.75, -1.0> }
object { CupForm Glaze(<0.05, 0.20, 0.19>, <0.12, 0.30, 0.28>, 0.3, 0.9) scale 0.85 translate <-5.0, 1.75, -1.1> }
object { JarForm Glaze(<0.05, 0.12, 0.30>, <0.12, 0.24, 0.46>, 0.4, 0.9) scale 1.5 translate <1.6, 0, 2.4> }
object { JarForm RawClay(<0.36, 0.18, 0.11>) scale 1.3 translate <7.2, 0, 2.8> }
object { Tree(10, 5, <0.045, 0.06, 0.03>) translate <-12, 0, 14> } object { Tree(8, 13, <0.045, 0.06, 0.03>) translate <-17, 0, 20> } object { Tree(9, 31, <0.045, 0.06, 0.03>) translate <-6, 0, 24> }
