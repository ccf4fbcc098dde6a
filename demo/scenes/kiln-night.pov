// Ashglaze 4: the kiln at night. A glow far above white, a cold work lamp, a little moonlight.
#version 3.7;
#include "common.inc"
#include "outdoors.inc"
SceneSettings()

camera { location <1.6, 3.3, -15> look_at <0.2, 2.35, 0> angle 44 right x * image_width / image_height }

#declare Ember = <1.0, 0.36, 0.085>;
// The fire in the mouth, the work lamp at the right, moonlight.
light_source { <-2.4, 1.7, 1.5> color rgb Ember * 7 area_light <1.4, 0, 0>, <0, 1.4, 0>, 5, 5 adaptive 1 jitter fade_distance 2.2 fade_power 2 }
light_source { <7.2, 6.6, -5.5> color rgb <0.80, 0.92, 1.12> * 1.6 area_light <0.8, 0, 0>, <0, 0.8, 0>, 4, 4 adaptive 1 jitter fade_distance 6 fade_power 2 }
light_source { <-30, 50, -20> color rgb <0.020, 0.027, 0.042> }
sphere { 0, 90 hollow pigment { gradient y scale 180 translate -90 color_map { [0.5 rgb <0.004, 0.005, 0.008>] [0.6 rgb <0.0025, 0.0032, 0.006>] [1 rgb <0.001, 0.0014, 0.003>] } } finish { ambient 0 diffuse 0 emission 1 } no_shadow }

plane { y, 0 Cobbles(<0.16, 0.145, 0.13>) }
difference {
  union {
    box { <-6.2, 0, 2>, <2.4, 5.2, 9> }
    intersection { cylinder { <-1.9, 3.2, 2>, <-1.9, 3.2, 9>, 4.9 } box { <-6.2, 5.2, 2>, <2.4, 9, 9> } }
  }
  union { box { <-3.55, 0.5, 0>, <-1.25, 1.9, 5.5> } cylinder { <-2.4, 1.9, 0>, <-2.4, 1.9, 5.5>, 1.15 } }
  Bricks(<0.30, 0.135, 0.085>, <0.20, 0.185, 0.165>)
}
// Inside: white-hot wall, ware standing in it.
box { <-3.6, 0.4, 5.3>, <-1.2, 3.1, 5.6> pigment { bozo scale 0.6 warp { turbulence 0.5 } color_map { [0 rgb Ember * 26] [1 rgb <1.0, 0.52, 0.18> * 55] } } finish { ambient 0 diffuse 0 emission 1 } no_shadow }
union {
  box { <-3.56, 0.45, 2.6>, <-3.5, 3.0, 5.4> } box { <-1.3, 0.45, 2.6>, <-1.24, 3.0, 5.4> } box { <-3.55, 0.45, 2.6>, <-1.25, 0.5, 5.4> }
  pigment { granite scale 0.7 color_map { [0 rgb Ember * 5] [1 rgb Ember * 14] } } finish { ambient 0 diffuse 0 emission 1 } no_shadow
}
object { JarForm pigment { rgb <0.3, 0.12, 0.06> } finish { diffuse 0.5 ambient 0 emission <1.0, 0.30, 0.06> * 6 } scale 0.6 translate <-2.9, 0.5, 4.4> }
object { BottleForm pigment { rgb <0.3, 0.12, 0.06> } finish { diffuse 0.5 ambient 0 emission <1.0, 0.30, 0.06> * 8 } scale 0.55 translate <-1.9, 0.5, 4.2> }
cylinder { <1.2, 5.2, 6>, <1.2, 12, 6>, 0.9 Bricks(<0.25, 0.12, 0.08>, <0.18, 0.165, 0.15>) }

// A bench under the lamp with finished ware and the card; split logs at the left.
box { <1.8, 1.5, -4.2>, <8.8, 1.75, -1.9> Wood(<0.26, 0.165, 0.095>, <0.13, 0.075, 0.04>, <0, 90, 0>) }
box { <2.1, 0, -3.9>, <2.4, 1.5, -3.6> pigment { rgb <0.10, 0.065, 0.04> } } box { <8.1, 0, -3.9>, <8.4, 1.5, -3.6> pigment { rgb <0.10, 0.065, 0.04> } }
object { GreyCard scale 1.05 rotate x * 14 rotate y * -20 translate <3.1, 1.75, -3.4> }
object { MoonForm Glaze(<0.60, 0.59, 0.55>, <0.56, 0.54, 0.5>, 0.6, 0.9) scale 0.8 translate <5.1, 1.75, -2.9> }
object { JugForm Glaze(<0.03, 0.09, 0.28>, <0.10, 0.22, 0.44>, 0.4, 1) scale 0.75 rotate y * 30 translate <6.9, 1.75, -2.8> }
#declare R1 = seed(5); #declare I = 0;
#while (I < 34)
  cylinder { <0, 0, 0>, <2.4, 0, 0>, 0.22 + 0.1 * rand(R1) Wood(<0.30, 0.2, 0.11>, <0.16, 0.09, 0.05>, <0, 90, 0>) rotate y * (78 + 8 * rand(R1)) translate <-8.6 + 0.55 * mod(I, 7) + 0.2 * rand(R1), 0.25 + 0.47 * floor(I / 7), -1.2 + 0.3 * rand(R1)> }
  #declare I = I + 1;
#end
// The lamp itself, in frame at the upper right.
sphere { <7.2, 6.6, -1.0>, 0.26 pigment { rgb <0.85, 0.95, 1.1> * 30 } finish { ambient 0 diffuse 0 emission 1 } no_shadow }
cylinder { <7.2, 6.8, -1.0>, <7.2, 9.5, -1.0>, 0.05 pigment { rgb 0.02 } }
object { Tree(9, 3, <0.05, 0.07, 0.035>) translate <-12, 0, 12> }
object { Tree(8, 8, <0.05, 0.07, 0.035>) translate <9, 0, 14> }
