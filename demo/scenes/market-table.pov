// Ashglaze 9: a market table in low sun, as a passer-by would film it.
#version 3.7;
#include "common.inc"
#include "outdoors.inc"
SceneSettings()

camera { location <-1.2, 4.6, -13> look_at <0.1, 1.7, 0> angle 48 right x * image_width / image_height }

light_source { <34, 26, -30> color rgb <3.1, 2.8, 2.35> area_light <1.5, 0, 0>, <0, 1.5, 0>, 3, 3 adaptive 1 jitter }
light_source { <-10, 40, -14> color rgb <0.34, 0.40, 0.50> area_light <30, 0, 0>, <0, 0, 30>, 6, 6 adaptive 1 jitter }
sphere { 0, 150 hollow pigment { gradient y scale 300 translate -150 color_map { [0.5 rgb <1.9, 1.95, 2.0>] [0.58 rgb <0.9, 1.2, 1.8>] [1 rgb <0.3, 0.5, 1.1>] } } finish { ambient 0 diffuse 0 emission 0.8 } no_shadow }

plane { y, -3 Cobbles(<0.25, 0.23, 0.21>) }
// The table with a striped cloth.
box { <-8, -0.25, -3.4>, <8, 0, 3.2> texture { pigment { gradient x scale 1.3 color_map { [0 rgb <0.62, 0.58, 0.50>] [0.62 rgb <0.62, 0.58, 0.50>] [0.62 rgb <0.10, 0.19, 0.22>] [1 rgb <0.10, 0.19, 0.22>] } } normal { quilted 0.3 scale 0.05 } finish { diffuse 0.9 } } }
box { <-8.02, -2.4, -3.42>, <8.02, -0.02, -3.38> texture { pigment { gradient x scale 1.3 color_map { [0 rgb <0.62, 0.58, 0.50>] [0.62 rgb <0.62, 0.58, 0.50>] [0.62 rgb <0.10, 0.19, 0.22>] [1 rgb <0.10, 0.19, 0.22>] } } normal { wrinkles 0.7 scale <0.5, 3, 0.5> } finish { diffuse 0.9 } } }
object { MoonForm Glaze(<0.44, 0.06, 0.03>, <0.40, 0.15, 0.05>, 0.3, 1) scale 0.95 translate <-4.6, 0, 0.9> }
object { BottleForm Glaze(<0.03, 0.08, 0.30>, <0.10, 0.22, 0.46>, 0.3, 1) translate <-2.2, 0, 1.5> }
object { JugForm Glaze(<0.62, 0.60, 0.55>, <0.56, 0.54, 0.5>, 0.6, 0.9) rotate y * 20 translate <0.3, 0, 1.4> }
object { JarForm Glaze(<0.05, 0.24, 0.12>, <0.14, 0.34, 0.18>, 0.4, 1) translate <3.0, 0, 1.2> }
object { BottleForm Glaze(<0.45, 0.27, 0.03>, <0.5, 0.38, 0.10>, 0.4, 1) scale 0.9 translate <5.6, 0, 1.0> }
object { BowlForm Glaze(<0.20, 0.32, 0.36>, <0.3, 0.42, 0.44>, 0.3, 1) translate <-2.6, 0, -1.4> }
object { BowlForm Glaze(<0.50, 0.22, 0.26>, <0.54, 0.32, 0.32>, 0.3, 1) scale 0.9 translate <3.3, 0, -1.6> }
object { CupForm RawClay(<0.36, 0.17, 0.095>) translate <5.4, 0, -1.4> } object { CupForm Glaze(<0.025, 0.02, 0.018>, <0.2, 0.09, 0.04>, 0.2, 1) translate <-5.2, 0, -1.6> }
object { GreyCard scale 1.1 rotate x * 20 rotate y * -12 translate <0.6, 0, -2.3> }
// Behind: other stalls, out in the light, and trees.
box { <-22, -3, 15>, <-6, 4.2, 17> pigment { rgb <0.50, 0.16, 0.09> } } box { <-5, -3, 18>, <7, 3.4, 20> pigment { rgb <0.60, 0.56, 0.46> } } box { <9, -3, 16>, <24, 4.4, 18> pigment { rgb <0.10, 0.22, 0.30> } }
box { <-22, -1.5, 14.9>, <-6, 1.2, 15> pigment { rgb 0.02 } } box { <9, -1.5, 15.9>, <24, 1.2, 16> pigment { rgb 0.02 } }
object { Tree(12, 5, <0.085, 0.13, 0.045>) translate <-9, -3, 30> } object { Tree(13, 19, <0.10, 0.14, 0.05>) translate <3, -3, 34> } object { Tree(11, 27, <0.08, 0.12, 0.045>) translate <14, -3, 28> }
