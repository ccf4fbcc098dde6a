// Ashglaze 14: screens and neon. The shop's window at night: tubes of pure colour, two screens, wet stones.
#version 3.7;
#include "common.inc"
#include "outdoors.inc"
SceneSettings()

camera { location <-0.8, 2.9, -14> look_at <0, 2.9, 0> angle 48 right x * image_width / image_height }

#declare Rose = <1.0, 0.06, 0.42>; #declare Ice = <0.05, 0.62, 1.0>; #declare Amber = <1.0, 0.36, 0.03>;
light_source { <-3.6, 4.6, 1.4> color rgb Rose * 1.5 area_light <2.2, 0, 0>, <0, 2.4, 0>, 4, 4 adaptive 1 jitter fade_distance 3 fade_power 2 }
light_source { <3.4, 5.9, 1.4> color rgb Ice * 1.1 area_light <4, 0, 0>, <0, 0.4, 0>, 5, 2 adaptive 1 jitter fade_distance 3 fade_power 2 }
light_source { <1.8, 3.1, 4.0> color rgb <0.35, 0.55, 1.0> * 0.8 area_light <2, 0, 0>, <0, 1.2, 0>, 3, 3 adaptive 1 jitter fade_distance 3 fade_power 2 }
light_source { <0, 6.6, 5> color rgb <1.0, 0.8, 0.6> * 0.55 area_light <4, 0, 0>, <0, 0, 2>, 3, 3 adaptive 1 jitter fade_distance 4 fade_power 2 }
light_source { <-8, 9, -12> color rgb <1.0, 0.82, 0.6> * 0.16 area_light <2, 0, 0>, <0, 2, 0>, 3, 3 adaptive 1 jitter }
sphere { 0, 150 hollow pigment { gradient y scale 300 translate -150 color_map { [0.5 rgb <0.035, 0.03, 0.04>] [0.7 rgb <0.008, 0.010, 0.02>] } } finish { ambient 0 diffuse 0 emission 1 } no_shadow }

// Wet stones: the same cobbles under a coat that mirrors.
plane { y, 0 texture { pigment { crackle scale 0.9 color_map { [0 rgb 0.015] [0.08 rgb 0.03] [0.25 rgb 0.05] [1 rgb 0.07] } } normal { crackle 0.22 scale 0.9 } finish { diffuse 0.8 specular 0.3 roughness 0.01 reflection { 0.10, 0.75 fresnel on } conserve_energy } } interior { ior 1.4 } }
difference {
  box { <-30, 0, 2>, <30, 9, 3> } box { <-6, 1.5, 1>, <6.2, 6.4, 4> }
  Plaster(<0.10, 0.09, 0.085>)
}
union { box { <-6.2, 1.3, 1.8>, <6.4, 1.5, 3.2> } box { <-0.08, 1.5, 2.3>, <0.08, 6.4, 2.5> } pigment { rgb <0.05, 0.04, 0.035> } }
// The room behind the glass.
box { <-9, 0, 7.5>, <9, 7, 7.7> Plaster(<0.35, 0.30, 0.26>) }
box { <-9, 0, 2.5>, <9, 1.45, 7.6> Wood(<0.22, 0.14, 0.085>, <0.12, 0.075, 0.045>, <0, 90, 0>) }
box { <-8, 3.9, 6.2>, <8, 4.05, 7.6> Wood(<0.22, 0.14, 0.085>, <0.12, 0.075, 0.045>, <0, 90, 0>) }
// Tubes: a jar in outline, two waves over the window.
#macro Tube(Tone) pigment { rgb Tone * 14 + <0.6, 0.6, 0.6> } finish { ambient 0 diffuse 0 emission 1 } no_shadow #end
union {
  sphere_sweep { cubic_spline 12, <-0.5, 0, 0>, 0.06, <-0.6, 0.02, 0>, 0.06, <-1.15, 0.95, 0>, 0.06, <-0.7, 1.9, 0>, 0.06, <-0.72, 2.3, 0>, 0.06, <0, 2.42, 0>, 0.06, <0.72, 2.3, 0>, 0.06, <0.7, 1.9, 0>, 0.06, <1.15, 0.95, 0>, 0.06, <0.6, 0.02, 0>, 0.06, <-0.6, 0.02, 0>, 0.06, <-0.7, 0.1, 0>, 0.06 tolerance 0.0001 }
  Tube(Rose) translate <-3.6, 3.4, 1.7>
}
sphere_sweep { cubic_spline 7, <-4.55, 4.4, 1.7>, 0.05, <-4.4, 4.45, 1.7>, 0.05, <-4.0, 4.62, 1.7>, 0.05, <-3.6, 4.4, 1.7>, 0.05, <-3.2, 4.2, 1.7>, 0.05, <-2.8, 4.4, 1.7>, 0.05, <-2.6, 4.5, 1.7>, 0.05 tolerance 0.0001 Tube(Amber) }
#local W = 0; #while (W < 2)
  sphere_sweep { cubic_spline 11, <0.8, 5.7, 1.7>, 0.05, <1.2, 5.8, 1.7>, 0.05, <1.8, 6.05, 1.7>, 0.05, <2.4, 5.8, 1.7>, 0.05, <3.0, 5.55, 1.7>, 0.05, <3.6, 5.8, 1.7>, 0.05, <4.2, 6.05, 1.7>, 0.05, <4.8, 5.8, 1.7>, 0.05, <5.4, 5.55, 1.7>, 0.05, <5.9, 5.75, 1.7>, 0.05, <6.2, 5.9, 1.7>, 0.05 tolerance 0.0001 Tube(Ice) translate <-0.2, -0.42 * W, 0> }
  #local W = W + 1; #end
// Two screens that show firing curves and a picture of glaze.
union {
  box { <0.6, 2.2, 4.6>, <3.0, 3.8, 4.7> pigment { gradient x scale <2.4, 1, 1> translate x * 0.6 color_map { [0 rgb <0.10, 0.35, 1.3>] [0.5 rgb <0.10, 1.2, 1.1>] [1 rgb <0.35, 0.12, 1.2>] } warp { turbulence <0.3, 0.5, 0> } } finish { ambient 0 diffuse 0 emission 1.5 } }
  box { <0.5, 2.1, 4.65>, <3.1, 3.9, 4.8> pigment { rgb 0.012 } } box { <1.6, 1.45, 4.7>, <2.0, 2.2, 4.8> pigment { rgb 0.03 } }
}
union {
  box { <3.6, 1.9, 5.0>, <5.4, 3.1, 5.1> pigment { bozo scale 0.5 warp { turbulence 0.8 } color_map { [0 rgb <1.2, 0.25, 0.04>] [0.5 rgb <1.2, 0.9, 0.15>] [1 rgb <0.9, 0.06, 0.25>] } } finish { ambient 0 diffuse 0 emission 1.3 } }
  box { <3.5, 1.8, 5.05>, <5.5, 3.2, 5.2> pigment { rgb 0.012 } } box { <4.3, 1.45, 5.1>, <4.7, 1.9, 5.2> pigment { rgb 0.03 } }
}
// Ware in the window; outside a bollard's lamp, a crate with the card and a jug.
object { MoonForm Glaze(<0.64, 0.63, 0.60>, <0.58, 0.57, 0.54>, 0.4, 1) scale 0.8 translate <-4.2, 1.5, 4.2> }
object { BottleForm Glaze(<0.02, 0.02, 0.022>, <0.10, 0.08, 0.08>, 0.1, 1) scale 0.85 translate <-2.3, 1.5, 3.8> }
object { JarForm Glaze(<0.05, 0.22, 0.19>, <0.12, 0.34, 0.28>, 0.4, 1) scale 0.75 translate <-0.9, 1.5, 4.4> }
object { BowlForm Glaze(<0.46, 0.30, 0.06>, <0.52, 0.40, 0.14>, 0.3, 1) scale 0.7 translate <5.4, 1.5, 3.6> }
#local I = 0; #while (I < 8) object { CupForm Glaze(<0.1 + 0.06 * I, 0.3 - 0.03 * I, 0.28>, <0.4, 0.4, 0.36>, 0.3, 1) scale 0.62 translate <-5.6 + 1.55 * I, 4.05, 6.7> } #local I = I + 1; #end
box { <-0.9, 0, -3.4>, <2.4, 0.9, -1.9> Wood(<0.22, 0.15, 0.10>, <0.12, 0.08, 0.05>, <0, 90, 0>) }
object { JugForm Glaze(<0.60, 0.58, 0.54>, <0.54, 0.52, 0.48>, 0.4, 1) scale 0.9 rotate y * 200 translate <1.4, 0.9, -2.5> }
object { GreyCard scale 0.95 rotate x * 14 rotate y * -6 translate <-0.15, 0.9, -3.1> }
