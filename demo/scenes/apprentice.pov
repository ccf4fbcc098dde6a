// Ashglaze 7: the apprentice, lighter skin, by a large window; for matching with the potter.
#version 3.7;
#include "common.inc"
SceneSettings()

camera {
  location <-0.4, 0.30, -10.0> look_at <-0.15, -0.50, 0> angle 43 right x * image_width / image_height
  #if (Quality > 1) aperture 0.42 blur_samples 20 focal_point <0, -0.1, -0.85> confidence 0.9 variance 1/4000 #end
}

#ifndef (Matte)
light_source { <8.0, 5.5, -6.6> color rgb 1.5 area_light <2.8, 0, 2.8>, <0, 3.8, 0>, 6, 6 adaptive 1 jitter }
light_source { <-9.5, 3.0, -4.5> color rgb <0.30, 0.31, 0.33> area_light <0, 3, 0>, <0, 0, 3>, 4, 4 adaptive 1 jitter }
light_source { <-4.5, 6.5, 7> color rgb <0.62, 0.64, 0.68> area_light <2, 0, 0>, <0, 2, 0>, 4, 4 adaptive 1 jitter }
sphere { 0, 60 hollow pigment { rgb 0.08 } finish { ambient 0 diffuse 0 emission 1 } no_image no_shadow }
#end

#include "skin.inc"
#declare SkinTone = rgb <0.460, 0.295, 0.220>;
#declare SkinWarm = rgb <0.500, 0.230, 0.170>;
#declare SkinPale = rgb <0.56, 0.40, 0.31>;
#declare LipTone = rgb <0.340, 0.140, 0.120>;
#declare HairTone = rgb <0.075, 0.042, 0.022>;
#declare WrapTone = rgb <0.075, 0.135, 0.24>;
#declare ShirtTone = rgb <0.40, 0.375, 0.33>;
#declare HeadTurn = transform { rotate x * -7 rotate z * -3 rotate y * -22 }
#include "head.inc"

// A plastered wall with a plank door, a rack of drying bowls.
plane { z, 15 Plaster(<0.30, 0.27, 0.235>) hollow }
box { <-7.6, -12, 14.2>, <-4.0, 9, 15.2> Wood(<0.10, 0.075, 0.055>, <0.05, 0.035, 0.025>, <90, 0, 0>) }
box { <-0.6, 1.3, 12.5>, <16, 1.65, 15> Wood(<0.26, 0.17, 0.10>, <0.14, 0.08, 0.045>, <0, 90, 0>) }
#declare N = 0;
#while (N < 6)
  object { BowlForm RawClay(<0.40 - 0.03 * N, 0.32 - 0.035 * N, 0.25 - 0.03 * N>) scale 1.05 translate <2.6 + 2.3 * N, 1.65, 13.4> }
  #declare N = N + 1;
#end
box { <-16, 4.6, 12.5>, <16, 4.9, 15> Wood(<0.26, 0.17, 0.10>, <0.14, 0.08, 0.045>, <0, 90, 0>) }

box { <-9, -2.75, -3.1>, <9, -2.3, 0.2> Wood(<0.26, 0.165, 0.095>, <0.14, 0.08, 0.045>, <0, 90, 0>) }
object { BowlForm Glaze(<0.40, 0.10, 0.05>, <0.46, 0.22, 0.10>, 0.3, 0.95) scale 0.95 translate <1.9, -2.3, -1.7> }
object { CupForm Glaze(<0.03, 0.06, 0.22>, <0.10, 0.18, 0.40>, 0.3, 0.95) scale 0.8 translate <3.3, -2.3, -1.1> }
object { GreyCard scale 0.95 rotate x * 6 rotate y * -14 translate <-2.3, -2.3, -1.5> }
