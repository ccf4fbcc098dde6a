// Ashglaze 16: day for night. The loading place in hard back light at noon, without sky: to be graded to moonlight.
#version 3.7;
#include "common.inc"
#include "outdoors.inc"
SceneSettings()

camera { location <1.0, 4.6, -16> look_at <0.2, 1.9, 0> angle 47 right x * image_width / image_height }

light_source { <-16, 60, 21> color rgb <4.2, 4.0, 3.7> area_light <1.2, 0, 0>, <0, 0, 1.2>, 3, 3 adaptive 1 jitter }
light_source { <10, 50, -30> color rgb <0.17, 0.20, 0.25> area_light <40, 0, 0>, <0, 0, 40>, 6, 6 adaptive 1 jitter }
sphere { 0, 200 hollow pigment { rgb <0.40, 0.50, 0.68> } finish { ambient 0 diffuse 0 emission 0.7 } no_shadow no_image }

plane { y, 0 Cobbles(<0.22, 0.21, 0.19>) }
// Buildings close the frame above.
difference { box { <-40, 0, 9>, <40, 8.6, 11> } box { <-7.4, 0, 8>, <-3.2, 5.2, 10.4> } box { <3.0, 2.6, 8>, <5.6, 5.8, 10.4> } box { <8.4, 2.6, 8>, <11, 5.8, 10.4> } Bricks(<0.24, 0.125, 0.09>, <0.22, 0.21, 0.19>) }
box { <-7.4, 0, 10>, <-3.2, 5.2, 10.3> Wood(<0.10, 0.14, 0.13>, <0.06, 0.085, 0.08>, <90, 0, 0>) }
box { <3.0, 2.6, 10>, <11, 5.8, 10.3> pigment { rgb <0.05, 0.055, 0.06> } finish { diffuse 0.8 reflection 0.1 } }
union { box { <2.8, 2.4, 8.7>, <5.8, 2.6, 9.2> } box { <8.2, 2.4, 8.7>, <11.2, 2.6, 9.2> } pigment { rgb 0.36 } }
// The cart with crates of ware in straw.
union {
  box { <-3.4, 1.5, -1.6>, <3.2, 1.72, 1.6> } box { <-3.4, 1.72, 1.45>, <3.2, 2.6, 1.6> } box { <-3.5, 1.72, -1.6>, <-3.36, 2.6, 1.6> }
  cylinder { <3.2, 1.6, -0.7>, <7.4, 0.5, -0.5>, 0.09 } cylinder { <3.2, 1.6, 0.7>, <7.4, 0.5, 0.5>, 0.09 }
  Wood(<0.30, 0.21, 0.13>, <0.17, 0.11, 0.07>, <0, 90, 0>)
}
#macro Wheel() union { torus { 1.25, 0.11 rotate x * 90 } sphere { 0, 0.2 } #local K = 0; #while (K < 10) cylinder { 0, <1.22, 0, 0>, 0.05 rotate z * 36 * K } #local K = K + 1; #end pigment { rgb <0.10, 0.055, 0.04> } finish { diffuse 0.9 } } #end
object { Wheel() translate <-0.8, 1.3, -1.85> } object { Wheel() translate <-0.8, 1.3, 1.85> }
object { JarForm Glaze(<0.60, 0.59, 0.55>, <0.56, 0.54, 0.5>, 0.6, 0.9) scale 0.85 translate <-2.4, 1.72, 0.2> }
object { JarForm Glaze(<0.03, 0.09, 0.30>, <0.10, 0.22, 0.46>, 0.4, 0.9) scale 0.85 translate <-0.6, 1.72, 0.5> }
object { BottleForm Glaze(<0.34, 0.05, 0.025>, <0.34, 0.13, 0.04>, 0.3, 1) scale 0.9 translate <1.0, 1.72, 0.2> }
object { MoonForm Glaze(<0.05, 0.22, 0.18>, <0.10, 0.34, 0.28>, 0.4, 0.9) scale 0.7 translate <2.3, 1.72, 0.6> }
// A loader who carries a jar, seen from behind; a crate with the card; bales; a dog's bowl.
union {
  sphere_sweep { b_spline 6, <0, 1.5, 0>, 0.5, <0, 1.9, 0>, 0.52, <0, 2.6, 0.02>, 0.50, <0, 3.2, 0.05>, 0.56, <0, 3.75, 0.06>, 0.40, <0, 4.1, 0.06>, 0.2 tolerance 0.001 scale <1, 1, 0.7> texture { pigment { rgb <0.20, 0.23, 0.27> } normal { wrinkles 0.5 scale <0.5, 1.4, 0.5> } finish { diffuse 0.9 } } }
  sphere { <0, 4.45, 0.1>, 0.40 scale <0.95, 1.08, 1> translate y * -0.35 texture { pigment { rgb <0.34, 0.20, 0.14> } } }
  sphere { <0, 4.52, 0.02>, 0.42 scale <0.97, 1.05, 1.02> translate y * -0.20 texture { pigment { granite scale 0.2 color_map { [0 rgb <0.03, 0.02, 0.015>] [1 rgb <0.09, 0.06, 0.04>] } } normal { wrinkles 0.6 scale 0.1 } } }
  sphere_sweep { b_spline 5, <0.26, 2.0, 0>, 0.27, <0.28, 1.7, 0>, 0.27, <0.30, 1.0, 0.05>, 0.21, <0.30, 0.15, 0.1>, 0.17, <0.30, -0.1, 0.1>, 0.17 tolerance 0.001 pigment { rgb <0.07, 0.075, 0.10> } }
  sphere_sweep { b_spline 5, <-0.26, 2.0, 0>, 0.27, <-0.28, 1.7, 0>, 0.27, <-0.32, 1.0, -0.25>, 0.21, <-0.34, 0.15, -0.2>, 0.17, <-0.34, -0.1, -0.2>, 0.17 tolerance 0.001 pigment { rgb <0.07, 0.075, 0.10> } }
  sphere_sweep { b_spline 6, <0.5, 3.7, 0>, 0.2, <0.58, 3.5, 0>, 0.2, <0.82, 2.9, 0.15>, 0.17, <0.6, 2.6, 0.7>, 0.14, <0.3, 2.7, 0.9>, 0.12, <0.1, 2.7, 0.9>, 0.1 tolerance 0.001 texture { pigment { rgb <0.20, 0.23, 0.27> } finish { diffuse 0.9 } } }
  sphere_sweep { b_spline 6, <-0.5, 3.7, 0>, 0.2, <-0.58, 3.5, 0>, 0.2, <-0.82, 2.9, 0.15>, 0.17, <-0.6, 2.6, 0.7>, 0.14, <-0.3, 2.7, 0.9>, 0.12, <-0.1, 2.7, 0.9>, 0.1 tolerance 0.001 texture { pigment { rgb <0.20, 0.23, 0.27> } finish { diffuse 0.9 } } }
  object { JarForm RawClay(<0.44, 0.34, 0.25>) scale 0.85 translate <0, 2.1, 1.35> }
  rotate y * -35 translate <-6.0, 0, 1.8>
}
box { <3.1, 0, -3.8>, <6.0, 1.3, -2.0> Wood(<0.28, 0.20, 0.13>, <0.16, 0.11, 0.07>, <0, 90, 0>) }
object { GreyCard scale 1.15 rotate x * 52 rotate y * -10 translate <4.2, 1.3, -3.6> }
object { CupForm RawClay(<0.42, 0.34, 0.26>) scale 0.9 translate <5.4, 1.3, -2.9> }
object { Stack(6, <0.40, 0.22, 0.14>) translate <8.6, 0, 0.8> } object { Stack(4, <0.42, 0.36, 0.30>) translate <10.6, 0, -0.2> }
superellipsoid { <0.3, 0.3> scale <1.4, 0.75, 0.9> translate <7.6, 0.75, 4> texture { pigment { granite scale <0.9, 0.1, 0.4> color_map { [0 rgb <0.30, 0.22, 0.08>] [1 rgb <0.55, 0.44, 0.18>] } } normal { granite 0.8 scale <0.6, 0.1, 0.3> } } }
