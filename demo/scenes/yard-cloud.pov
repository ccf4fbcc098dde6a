// Ashglaze 5: the yard under cloud. Soft light from the whole sky, low contrast, nothing truly white.
#version 3.7;
#include "common.inc"
#include "outdoors.inc"
SceneSettings()

camera { location <0, 4.2, -17> look_at <0, 2.6, 0> angle 52 right x * image_width / image_height }

light_source { <-10, 40, -22> color rgb <0.92, 0.98, 1.06> area_light <34, 0, 0>, <0, 0, 34>, 8, 8 adaptive 1 jitter }
sphere { 0, 120 hollow pigment { bozo scale <60, 14, 60> warp { turbulence 0.6 octaves 4 } color_map { [0 rgb <0.86, 0.92, 1.0>] [1 rgb <1.22, 1.24, 1.28>] } } finish { ambient 0 diffuse 0 emission 1 } no_shadow }

plane { y, 0 Cobbles(<0.21, 0.20, 0.185>) }
box { <-60, -0.1, 9>, <60, 0.12, 60> Grass(<0.10, 0.135, 0.055>) }
// The workshop's long wall with a door and a window, and a tiled roof.
difference {
  box { <-9, 0, 6>, <30, 6.4, 8> }
  box { <-3.4, 0, 5>, <-0.6, 4.6, 7> } box { <3.5, 2, 5>, <7.1, 4.7, 7> } box { <11, 2, 5>, <14.6, 4.7, 7> }
  Plaster(<0.46, 0.44, 0.40>)
}
box { <-3.4, 0, 6.6>, <-0.6, 4.6, 6.9> Wood(<0.08, 0.13, 0.15>, <0.05, 0.085, 0.10>, <90, 0, 0>) }
box { <3.5, 2, 6.6>, <14.6, 4.7, 6.9> pigment { rgb <0.03, 0.033, 0.036> } finish { diffuse 0.9 reflection 0.12 } }
box { <-9.6, 6.3, 4.4>, <30, 6.7, 12> texture { pigment { brick rgb <0.10, 0.05, 0.035>, rgb <0.25, 0.125, 0.085> brick_size <0.9, 2, 0.9> mortar 0.05 } normal { brick 0.5 brick_size <0.9, 2, 0.9> } finish { diffuse 0.9 } } rotate x * 0 }
prism { linear_sweep -9.6, 30, 4, <4.4, 6.7>, <12, 6.7>, <12, 11.2>, <4.4, 6.7> rotate z * -90 scale <1, -1, 1> rotate y * 0 pigment { rgb <0.24, 0.12, 0.085> } }
object { Tree(11, 5, <0.085, 0.125, 0.045>) translate <-14, 0, 14> }
object { Tree(9, 12, <0.10, 0.13, 0.05>) translate <-21, 0, 22> }
object { Tree(12, 21, <0.075, 0.115, 0.05>) translate <-7, 0, 26> }
// Stacks of raw bowls, crates, glazed jars, a barrow, and the card.
object { Stack(7, <0.40, 0.33, 0.26>) translate <1.3, 0, 1.2> } object { Stack(5, <0.38, 0.20, 0.13>) translate <3.5, 0, 0.7> } object { Stack(9, <0.42, 0.36, 0.30>) translate <5.8, 0, 1.6> }
box { <-7.8, 0, 0>, <-4.6, 1.5, 2.4> Wood(<0.28, 0.20, 0.13>, <0.16, 0.11, 0.07>, <0, 90, 0>) }
object { JarForm Glaze(<0.05, 0.14, 0.12>, <0.12, 0.24, 0.20>, 0.4, 0.6) scale 1.3 translate <-6.9, 1.5, 1.0> }
object { BottleForm Glaze(<0.30, 0.08, 0.04>, <0.34, 0.16, 0.08>, 0.3, 0.6) scale 1.1 translate <-5.4, 1.5, 1.2> }
object { JugForm Glaze(<0.34, 0.22, 0.05>, <0.42, 0.32, 0.12>, 0.4, 0.6) scale 1.3 rotate y * 40 translate <8.4, 0, -0.6> }
box { <-1.5, 0, -2.6>, <0.9, 0.9, -1.4> Wood(<0.26, 0.19, 0.13>, <0.15, 0.10, 0.065>, <0, 90, 0>) }
object { GreyCard scale 1.15 rotate x * 16 rotate y * 5 translate <-0.35, 0.9, -2.3> }
