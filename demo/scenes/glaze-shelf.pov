// Ashglaze 1: a shelf of glazed vessels in soft side light, rich in colour, with the grey card.
#version 3.7;
#include "common.inc"
SceneSettings()

camera { location <0.3, 2.35, -14.5> look_at <0.0, 1.72, 0> angle 42 right x * image_width / image_height }

// A tall soft window from the left and a weak warm return from the right.
light_source { <-11, 8.5, -8> color rgb 1.42 area_light <0, 4.5, 0>, <3.2, 0, -3.2>, 6, 6 adaptive 1 jitter }
light_source { <9, 4, -9> color rgb <0.20, 0.185, 0.165> area_light <0, 4, 0>, <2, 0, 2>, 4, 4 adaptive 1 jitter }
// What the glazes mirror: the window as a bright paned sheet, and a dim room.
union {
  box { <-1.9, -2.6, 0>, <-0.08, -0.08, 0.02> } box { <0.08, -2.6, 0>, <1.9, -0.08, 0.02> }
  box { <-1.9, 0.08, 0>, <-0.08, 2.6, 0.02> } box { <0.08, 0.08, 0>, <1.9, 2.6, 0.02> }
  pigment { rgb <8.2, 8.4, 8.8> } finish { ambient 0 diffuse 0 emission 1 }
  no_shadow no_image rotate y * -48 translate <-10, 8, -8.5>
}
sphere { 0, 60 hollow pigment { gradient y scale 120 translate -60 color_map { [0 rgb 0.02] [0.6 rgb 0.05] [1 rgb 0.10] } } finish { ambient 0 diffuse 0 emission 1 } no_image no_shadow }

plane { z, 2.4 Plaster(<0.47, 0.435, 0.39>) hollow }
// Shelf boards, the lower one under the vessels, the upper one across the top of the frame.
box { <-14, -0.36, -1.7>, <14, 0, 2.4> Wood(<0.36, 0.225, 0.125>, <0.20, 0.11, 0.055>, <0, 90, 0>) }
box { <-14, 4.55, -0.6>, <14, 4.85, 2.4> Wood(<0.30, 0.19, 0.11>, <0.17, 0.095, 0.05>, <0, 90, 0>) translate x * 3 }
// Under the shelf: the doors of a cupboard, a little back from its edge.
#local D = -4;
#while (D < 4)
  box { <D * 2.6 + 0.03, -6, -1.35>, <D * 2.6 + 2.57, -0.40, -1.2> Wood(<0.30, 0.19, 0.105>, <0.17, 0.095, 0.05>, <90, 0, 0>) }
  box { <D * 2.6 + 0.3, -6, -1.40>, <D * 2.6 + 2.3, -0.72, -1.36> Wood(<0.27, 0.17, 0.095>, <0.15, 0.085, 0.045>, <90, 0, 0>) }
  #local D = D + 1;
#end
box { <-14, -6, -1.2>, <14, -0.36, 2.4> pigment { rgb <0.03, 0.025, 0.02> } }

object { BottleForm Glaze(<0.36, 0.045, 0.022>, <0.30, 0.12, 0.03>, 0.25, 1) scale <1.05, 1.18, 1.05> translate <-4.35, 0, 0.55> }
object { JarForm Glaze(<0.018, 0.055, 0.30>, <0.08, 0.19, 0.46>, 0.35, 1) scale 1.10 translate <-2.65, 0, 0.15> }
object { MoonForm Glaze(<0.66, 0.645, 0.60>, <0.60, 0.58, 0.52>, 0.75, 0.8) translate <0.05, 0, 0.85> }
object { JugForm Glaze(<0.36, 0.20, 0.035>, <0.46, 0.33, 0.10>, 0.5, 0.95) Drip(<0.10, 0.045, 0.015>, <0.05, 0.022, 0.010>, 2.38, 0.9) rotate y * 22 scale 1.08 translate <2.35, 0, 0.55> }
object { JarForm Glaze(<0.020, 0.23, 0.19>, <0.05, 0.36, 0.29>, 0.3, 1) Drip(<0.03, 0.08, 0.10>, <0.015, 0.04, 0.055>, 1.98, 1.05) scale <0.92, 1.28, 0.92> translate <4.45, 0, 0.35> }
object { BowlForm Glaze(<0.26, 0.33, 0.235>, <0.37, 0.43, 0.32>, 0.25, 0.95) scale 0.86 translate <-0.62, 0, -0.95> }
object { CupForm Glaze(<0.022, 0.017, 0.015>, <0.24, 0.085, 0.03>, 0.1, 1) scale 0.95 translate <1.05, 0, -1.0> }
object { CupForm Glaze(<0.42, 0.165, 0.20>, <0.50, 0.27, 0.27>, 0.4, 0.85) scale <0.8, 0.72, 0.8> translate <3.45, 0, -0.95> }
object { CupForm RawClay(<0.36, 0.165, 0.085>) scale <0.9, 0.8, 0.9> translate <-5.6, 0, -0.3> }
object { BowlForm RawClay(<0.42, 0.34, 0.26>) scale <0.9, 1.0, 0.9> translate <6.05, 0, 0.5> }
object { GreyCard rotate x * 9 rotate y * 10 translate <-3.75, 0, -1.15> }
// On the upper board, cut by the frame.
object { BowlForm Glaze(<0.30, 0.05, 0.03>, <0.36, 0.16, 0.06>, 0.3, 1) translate <-3.4, 4.85, 0.5> }
