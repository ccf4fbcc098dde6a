// Ashglaze 6: the courtyard, a wide plate: the left part in the shade of a house, the right in full sun.
#version 3.7;
#include "common.inc"
#include "outdoors.inc"
SceneSettings()

camera { location <0, 3.4, -17> look_at <0, 2.3, 0> angle 72 right x * image_width / image_height }

light_source { <-12, 46, -40> color rgb <5.0, 4.75, 4.35> area_light <1.2, 0, 0>, <0, 0, 1.2>, 3, 3 adaptive 1 jitter }
light_source { <10, 50, -20> color rgb <0.12, 0.145, 0.185> area_light <34, 0, 0>, <0, 0, 34>, 6, 6 adaptive 1 jitter }
sphere { 0, 150 hollow pigment { gradient y scale 300 translate -150 color_map { [0.5 rgb <1.1, 1.35, 1.7>] [0.6 rgb <0.55, 0.85, 1.5>] [1 rgb <0.22, 0.42, 1.0>] } } finish { ambient 0 diffuse 0 emission 0.6 } no_shadow }
// The house behind the camera whose shadow falls over the left part.
box { <-60, 0, -30>, <-9.03, 38, -22> pigment { rgb 0.4 } }

plane { y, 0 Cobbles(<0.24, 0.22, 0.195>) }
box { <-60, 0, 7>, <-2.6, 9.5, 9> Bricks(<0.28, 0.145, 0.10>, <0.25, 0.235, 0.21>) }
difference { box { <-2.6, 0, 8>, <60, 8.6, 10> } union { box { <3.4, 0, 7>, <6.4, 3.4, 10.5> } cylinder { <4.9, 3.4, 7>, <4.9, 3.4, 10.5>, 1.5 } box { <10, 2.6, 7>, <13, 5.6, 9.4> } } Plaster(<0.55, 0.50, 0.42>) }
box { <-60, 0, 14>, <60, 9, 15> Plaster(<0.40, 0.38, 0.34>) }
box { <10, 2.6, 9.2>, <13, 5.6, 9.5> pigment { rgb <0.02, 0.022, 0.025> } finish { diffuse 0.9 reflection 0.1 } }
box { <-12.6, 2.2, 6.6>, <-9.4, 5.2, 7.05> pigment { rgb <0.03, 0.05, 0.055> } finish { diffuse 0.9 specular 0.1 } }
box { <-13.0, 2.0, 6.5>, <-9.0, 2.2, 7.1> pigment { rgb 0.35 } }

// Shade: a bench with ware and the card. Sun: jars on the cobbles, a cloth on a line, a potted tree.
box { <-11.6, 1.2, -3.6>, <-3.9, 1.45, -1.6> Wood(<0.26, 0.175, 0.11>, <0.14, 0.085, 0.05>, <0, 90, 0>) }
box { <-11.2, 0, -3.3>, <-10.8, 1.2, -3.0> pigment { rgb <0.10, 0.07, 0.045> } } box { <-4.6, 0, -3.3>, <-4.2, 1.2, -3.0> pigment { rgb <0.10, 0.07, 0.045> } }
object { GreyCard scale 1.15 rotate x * 14 rotate y * 12 translate <-8.3, 1.45, -3.0> }
object { MoonForm Glaze(<0.60, 0.59, 0.55>, <0.56, 0.54, 0.5>, 0.6, 0.8) scale 0.85 translate <-6.3, 1.45, -2.5> }
object { BottleForm Glaze(<0.34, 0.05, 0.025>, <0.34, 0.13, 0.04>, 0.3, 1) scale 0.85 translate <-4.6, 1.45, -2.5> }
object { JarForm Glaze(<0.03, 0.09, 0.30>, <0.10, 0.22, 0.46>, 0.4, 0.9) scale 1.5 translate <2.2, 0, 0.4> }
object { JarForm Glaze(<0.34, 0.19, 0.04>, <0.44, 0.32, 0.11>, 0.5, 0.9) scale <1.3, 1.6, 1.3> translate <5.6, 0, 1.6> }
object { JugForm Glaze(<0.05, 0.22, 0.18>, <0.10, 0.34, 0.28>, 0.4, 0.9) scale 1.5 rotate y * 25 translate <8.6, 0, -0.8> }
object { BowlForm RawClay(<0.42, 0.34, 0.26>) scale 1.5 translate <11.6, 0, 0.8> }
object { Stack(6, <0.40, 0.21, 0.13>) translate <-0.9, 0, 1.6> }
object { JarForm RawClay(<0.36, 0.18, 0.11>) scale 1.5 translate <14.6, 0, 3.2> } object { Tree(6, 17, <0.09, 0.14, 0.045>) translate <14.6, 2.4, 3.2> }
cylinder { <7, 6.3, 3.4>, <20, 6.0, 3.4>, 0.03 pigment { rgb 0.3 } }
superellipsoid { <0.2, 0.2> scale <1.3, 1.7, 0.04> texture { pigment { rgb <0.72, 0.70, 0.66> } normal { wrinkles 0.8 scale <0.6, 2, 0.6> } finish { diffuse 0.9 } } translate <9.0, 4.5, 3.4> }
superellipsoid { <0.2, 0.2> scale <1.0, 1.4, 0.04> texture { pigment { rgb <0.45, 0.10, 0.07> } normal { wrinkles 0.8 scale <0.6, 2, 0.6> } finish { diffuse 0.9 } } translate <11.8, 4.7, 3.4> }
