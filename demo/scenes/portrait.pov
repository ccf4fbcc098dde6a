// Ashglaze 3: the potter, deeper skin, eyes lowered to the work, under a slightly green lamp; background out of focus.
#version 3.7;
#include "common.inc"
SceneSettings()

camera {
  location <0.5, 0.35, -10.2> look_at <0.22, -0.55, 0> angle 44 right x * image_width / image_height
  #if (Quality > 1) aperture 0.42 blur_samples 20 focal_point <0, -0.1, -0.85> confidence 0.9 variance 1/4000 #end
}

#ifndef (Matte)
light_source { <-7.5, 6.0, -7.2> color rgb 1.6 area_light <2.6, 0, -2.6>, <0, 3.4, 0>, 6, 6 adaptive 1 jitter }
light_source { <9.5, 2.5, -3.5> color rgb <0.34, 0.32, 0.30> area_light <0, 3, 0>, <0, 0, 3>, 4, 4 adaptive 1 jitter }
light_source { <4.5, 6.5, 7> color rgb <0.75, 0.72, 0.68> area_light <2, 0, 0>, <0, 2, 0>, 4, 4 adaptive 1 jitter }
sphere { 0, 60 hollow pigment { rgb 0.07 } finish { ambient 0 diffuse 0 emission 1 } no_image no_shadow }
#end

#include "skin.inc"
#declare SkinTone = rgb <0.200, 0.096, 0.056>;
#declare SkinWarm = rgb <0.225, 0.078, 0.044>;
#declare SkinPale = rgb <0.27, 0.15, 0.10>;
#declare LipTone = rgb <0.184, 0.078, 0.052>;
#declare HairTone = rgb <0.012, 0.0095, 0.008>;
#include "head.inc"

// Linen wall, a shelf with pots far behind, a dark doorway.
plane { z, 15 Plaster(<0.22, 0.225, 0.215>) hollow }
box { <3.4, -12, 14.2>, <7.2, 9, 15.2> pigment { rgb <0.018, 0.017, 0.017> } }
box { <-16, 0.9, 12.5>, <0.4, 1.25, 15> Wood(<0.26, 0.17, 0.10>, <0.14, 0.08, 0.045>, <0, 90, 0>) }
object { MoonForm Glaze(<0.52, 0.50, 0.45>, <0.5, 0.48, 0.42>, 0.3, 0.8) translate <-3.4, 1.25, 13.6> }
object { BottleForm Glaze(<0.30, 0.05, 0.025>, <0.34, 0.12, 0.04>, 0.2, 1) translate <-5.6, 1.25, 13.4> }
object { JarForm Glaze(<0.03, 0.10, 0.30>, <0.10, 0.22, 0.44>, 0.2, 1) translate <-1.0, 1.25, 13.6> }
object { JugForm Glaze(<0.36, 0.22, 0.05>, <0.42, 0.30, 0.10>, 0.2, 1) translate <-7.9, 1.25, 13.4> }
object { JarForm Glaze(<0.05, 0.22, 0.17>, <0.10, 0.32, 0.26>, 0.2, 1) scale 1.2 translate <-9.9, 1.25, 13.5> }

// Bench edge, the pot being worked and the grey card, in front.
box { <-9, -2.75, -3.1>, <9, -2.3, 0.2> Wood(<0.26, 0.165, 0.095>, <0.14, 0.08, 0.045>, <0, 90, 0>) }
object { CupForm Glaze(<0.06, 0.20, 0.24>, <0.14, 0.32, 0.34>, 0.3, 0.95) scale 1.15 translate <-1.8, -2.3, -1.7> }
object { GreyCard scale 0.95 rotate x * 6 rotate y * 16 translate <2.0, -2.3, -1.5> }
