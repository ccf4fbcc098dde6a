// Ashglaze 12: under water. Old ware on the ground of the harbour; light and red are lost with the way through water.
#version 3.7;
#include "common.inc"
SceneSettings()

camera { location <0, 2.2, -11> look_at <0.2, 1.5, 0> angle 54 right x * image_width / image_height }

fog { fog_type 1 distance 17 color rgb <0.035, 0.20, 0.25> }
// The sun through moving water: a plane of bright lines casts its pattern.
light_source { <-6, 60, -14> color rgb <1.9, 2.05, 2.0> area_light <0.5, 0, 0>, <0, 0, 0.5>, 2, 2 adaptive 1 }
light_source { <0, 30, -30> color rgb <0.10, 0.20, 0.22> area_light <20, 0, 0>, <0, 0, 20>, 4, 4 adaptive 1 jitter }
plane { y, 9 hollow no_image no_reflection
  pigment { crackle scale 1.7 warp { turbulence 0.25 octaves 3 } color_map { [0 rgbt <1, 1, 1, 1>] [0.07 rgbt <1, 1, 1, 0.80>] [0.22 rgbt <1, 1, 1, 0.42>] [1 rgbt <1, 1, 1, 0.25>] } } finish { diffuse 0 } }
sphere { 0, 80 hollow pigment { gradient y scale 160 translate -80 color_map { [0.48 rgb <0.02, 0.12, 0.16>] [0.62 rgb <0.06, 0.34, 0.40>] [0.9 rgb <0.30, 0.85, 0.90>] } } finish { ambient 0 diffuse 0 emission 0.5 } no_shadow }

#declare Sand = texture { pigment { granite scale 0.35 color_map { [0 rgb <0.22, 0.19, 0.14>] [0.5 rgb <0.42, 0.37, 0.28>] [1 rgb <0.52, 0.46, 0.36>] } } normal { average normal_map { [1 ripples 0.5 frequency 3 scale <3.2, 1, 1.1> turbulence 0.25] [0.5 granite 0.25 scale 0.4] } } finish { diffuse 0.9 } }
plane { y, 0 texture { Sand } }
union {
  sphere { 0, 1 scale <9, 0.7, 4> translate <6, -0.1, 6> } sphere { 0, 1 scale <8, 0.5, 3> translate <-8, -0.1, 5> } sphere { 0, 1 scale <2.2, 0.25, 1.3> translate <-1.6, -0.08, 0.4> }
  texture { Sand }
}
// Rocks.
#local S = seed(11); #local I = 0;
#while (I < 26) sphere { 0, 1 scale <0.5 + 1.3 * rand(S), 0.4 + 0.9 * rand(S), 0.5 + 1.2 * rand(S)> rotate y * 360 * rand(S) translate <-16 + 32 * rand(S), 0, 6 + 9 * rand(S)> texture { pigment { granite scale 0.8 color_map { [0 rgb <0.05, 0.07, 0.05>] [1 rgb <0.22, 0.23, 0.17>] } } normal { granite 0.7 scale 0.4 } finish { diffuse 0.9 } } } #local I = I + 1; #end
// Weed that leans with the current.
#macro Weed(Size, Seed, Tone)
  #local R = seed(Seed);
  union { #local I = 0;
    #while (I < 16) #local A = 2 * pi * rand(R); #local L = Size * (0.55 + 0.5 * rand(R)); #local D = <0.16 * cos(A), 0, 0.16 * sin(A)> * Size * 0.35;
      sphere_sweep { b_spline 6, D - y * 0.2, 0.05, D * 1.1, 0.05, D * 1.4 + <0.12 * L * rand(R), 0.35 * L, 0>, 0.055, D * 1.7 + <0.26 * L, 0.7 * L, 0.1 * sin(A)>, 0.045, D * 1.9 + <0.22 * L + 0.2 * rand(R), L, 0>, 0.03, D * 2 + <0.30 * L, 1.15 * L, 0>, 0.01 tolerance 0.001 scale <1, 1, 0.6> }
      #local I = I + 1; #end
    texture { pigment { gradient y scale Size color_map { [0 rgb Tone * 0.4] [1 rgb Tone] } } finish { diffuse 0.9 } } }
#end
object { Weed(3.4, 3, <0.10, 0.20, 0.04>) translate <-6.3, 0, 2.6> } object { Weed(2.6, 5, <0.16, 0.13, 0.04>) translate <-4.4, 0, 4.0> } object { Weed(4.2, 9, <0.08, 0.18, 0.05>) translate <6.8, 0, 4.6> } object { Weed(2.0, 21, <0.28, 0.07, 0.06>) translate <4.9, 0, 1.4> }

// The find: a large jar half in the sand, bottles, a bowl, shards; a starfish; the diver's slate with the card.
object { JarForm Glaze(<0.40, 0.20, 0.07>, <0.46, 0.30, 0.14>, 0.7, 0.25) scale 1.75 rotate <0, 0, -24> translate <-1.4, -0.45, 0.8> }
object { BottleForm Glaze(<0.32, 0.05, 0.03>, <0.36, 0.14, 0.08>, 0.6, 0.3) scale 1.15 rotate <0, 30, 82> translate <3.6, 0.72, 0.2> }
object { MoonForm Glaze(<0.58, 0.56, 0.50>, <0.50, 0.50, 0.42>, 0.9, 0.2) scale 1.0 rotate <18, 0, 12> translate <2.0, -0.25, 2.6> }
object { BowlForm RawClay(<0.44, 0.24, 0.14>) scale 0.95 rotate <-34, 0, 16> translate <-3.6, 0.10, -0.9> }
object { JugForm Glaze(<0.05, 0.10, 0.30>, <0.12, 0.22, 0.44>, 0.6, 0.3) scale 1.05 rotate <0, 200, -78> translate <-5.2, 0.72, 1.8> }
union { #local I = 0; #while (I < 5) sphere_sweep { linear_spline 3, <0, 0.10, 0>, 0.17, <0.35, 0.07, 0>, 0.12, <0.75, 0.03, 0>, 0.05 rotate y * 72 * I } #local I = I + 1; #end texture { pigment { granite scale 0.3 color_map { [0 rgb <0.55, 0.12, 0.03>] [1 rgb <0.75, 0.26, 0.07>] } } normal { bumps 0.6 scale 0.05 } } rotate y * 20 translate <0.5, 0.02, -2.6> }
#macro Fish(Tone, At, Turn, Size)
  union { sphere { 0, 1 scale <0.55, 0.24, 0.10> } prism { linear_sweep -0.02, 0.02, 4, <-0.45, 0>, <-0.85, 0.24>, <-0.85, -0.24>, <-0.45, 0> rotate x * -90 } sphere { <0.36, 0.06, -0.085>, 0.035 pigment { rgb 0.01 } }
    texture { pigment { gradient y scale 0.5 translate -0.25 color_map { [0 rgb Tone * 1.5] [1 rgb Tone * 0.5] } } finish { diffuse 0.8 specular 0.3 roughness 0.05 } } scale Size rotate Turn translate At }
#end
object { Fish(<0.50, 0.42, 0.10>, <2.9, 3.5, 1.4>, <0, 160, 6>, 0.8) } object { Fish(<0.46, 0.40, 0.12>, <4.1, 4.0, 2.6>, <0, 150, -4>, 0.75) } object { Fish(<0.5, 0.42, 0.12>, <1.5, 4.3, 3.4>, <0, 170, 3>, 0.75) } object { Fish(<0.45, 0.45, 0.48>, <-3.2, 4.2, 4>, <0, 20, 5>, 0.9) }
object { GreyCard scale 1.05 rotate x * 20 rotate y * -8 translate <1.9, 0.02, -2.3> }
