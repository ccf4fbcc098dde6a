// Ashglaze 2: a work bench under a window, dim inside, bright cloud and hills outside: a high range.
#version 3.7;
#include "common.inc"
SceneSettings()

camera { location <1.4, 3.5, -13> look_at <-0.35, 2.35, 0> angle 46 right x * image_width / image_height }

// Sky through the window: a soft source in the opening and the seen sky itself.
light_source { <-2.2, 6.6, 4.4> color rgb <3.1, 3.25, 3.5> area_light <5.2, 0, 0>, <0, 4.4, 0>, 6, 6 adaptive 1 jitter fade_distance 7 fade_power 1.4 }
light_source { <6, 7, -12> color rgb <0.050, 0.046, 0.040> area_light <4, 0, 0>, <0, 4, 0>, 4, 4 adaptive 1 jitter }

// Outside: bright cloud, a pale hill, a line of trees and a field, soft with distance.
plane { z, 70 hollow
  pigment {
    bozo scale <26, 9, 1> warp { turbulence 0.7 octaves 5 lambda 2.2 omega 0.55 }
    color_map { [0.15 rgb <5.2, 6.1, 7.6>] [0.45 rgb <8.5, 9.0, 9.8>] [0.62 rgb <15, 15, 15.2>] [0.8 rgb <24, 23.5, 22.8>] [1 rgb <31, 30.2, 29>] }
  }
  finish { ambient 0 diffuse 0 emission 1 } no_shadow }
#macro Ridge(Depth, Base, Rise, Grain, Low, High)
  #local X = -45;
  #local R = seed(41 + Depth);
  union {
    #while (X < 45)
      #local H = Base + Rise * (0.6 * sin(X * 0.13 + Depth) + 0.3 * sin(X * 0.41 + 2 * Depth) + 0.1 * sin(X * 1.7));
      cylinder { <X, -30, Depth>, <X, H + Grain * (rand(R) - 0.5), Depth>, 0.16 }
      #local X = X + 0.11;
    #end
    pigment { bozo scale <1.6, 0.9, 1> warp { turbulence 0.6 } color_map { [0 rgb Low] [1 rgb High] } }
    finish { ambient 0 diffuse 0 emission 1 } no_shadow
  }
#end
object { Ridge(62, 8.2, 2.6, 0.05, <2.6, 3.0, 3.3>, <3.2, 3.5, 3.6>) }
object { Ridge(50, 4.6, 1.3, 0.9, <0.55, 0.72, 0.50>, <1.25, 1.45, 0.95>) }
object { Ridge(38, 1.2, 0.5, 0.12, <1.5, 1.7, 0.9>, <2.2, 2.3, 1.3>) }

// The wall with its window opening (x -4.6..4.0, y 2.1..7.4 less frame), sill and panes.
difference {
  box { <-30, -6, 3.6>, <30, 16, 4.6> }
  box { <-4.9, 2.15, 3>, <3.7, 7.6, 5> }
  Plaster(<0.44, 0.42, 0.385>)
}
#macro FrameBar(A, B) box { A, B texture { pigment { rgb <0.40, 0.39, 0.36> } normal { wood 0.03 scale 0.3 } finish { diffuse 0.85 specular 0.15 roughness 0.04 } } } #end
union {
  FrameBar(<-4.9, 2.15, 3.95>, <-4.66, 7.6, 4.25>) FrameBar(<3.46, 2.15, 3.95>, <3.7, 7.6, 4.25>)
  FrameBar(<-4.9, 2.15, 3.95>, <3.7, 2.4, 4.25>) FrameBar(<-4.9, 7.36, 3.95>, <3.7, 7.6, 4.25>)
  FrameBar(<-2.09, 2.15, 4.0>, <-1.93, 7.6, 4.2>) FrameBar(<0.73, 2.15, 4.0>, <0.89, 7.6, 4.2>) FrameBar(<-4.9, 4.9, 4.02>, <3.7, 5.04, 4.18>)
  FrameBar(<-5.3, 1.95, 2.95>, <4.1, 2.15, 4.3>)
}
box { <-30, -6, -20>, <-9.5, 16, 4> Plaster(<0.36, 0.33, 0.30>) }
box { <11, -6, -20>, <30, 16, 4> Plaster(<0.36, 0.33, 0.30>) }
box { <-30, 11, -20>, <30, 12, 4> pigment { rgb 0.4 } }
box { <-30, -6, -22>, <30, -5.5, 5> pigment { rgb <0.12, 0.10, 0.085> } }
box { <-30, -6, -22>, <30, 12, -21> pigment { rgb <0.22, 0.20, 0.18> } }

// Bench.
box { <-12, -0.4, -3.2>, <12, 0, 3.4> Wood(<0.26, 0.165, 0.095>, <0.13, 0.075, 0.04>, <0, 90, 0>) }
box { <-12, -1.4, -3.0>, <12, -0.4, -2.8> Wood(<0.20, 0.125, 0.075>, <0.10, 0.06, 0.032>, <0, 90, 0>) }

// Ware drying along the sill and on the bench.
object { CupForm RawClay(<0.34, 0.30, 0.26>) translate <-4.35, 2.15, 3.35> }
object { BowlForm RawClay(<0.38, 0.21, 0.13>) scale 0.62 translate <-3.2, 2.15, 3.4> }
object { BottleForm Glaze(<0.04, 0.16, 0.28>, <0.10, 0.28, 0.42>, 0.2, 1) scale 0.62 translate <1.9, 2.15, 3.35> }
object { CupForm Glaze(<0.30, 0.33, 0.24>, <0.40, 0.42, 0.33>, 0.3, 0.9) scale 0.85 translate <2.9, 2.15, 3.3> }
object { MoonForm RawClay(<0.44, 0.37, 0.30>) translate <-3.5, 0, 0.5> }
object { JugForm Glaze(<0.30, 0.085, 0.035>, <0.36, 0.19, 0.07>, 0.35, 0.9) rotate y * -150 translate <-6.2, 0, 1.1> }
object { BowlForm Glaze(<0.42, 0.41, 0.37>, <0.5, 0.48, 0.42>, 0.6, 0.9) scale 1.25 translate <3.2, 0, 0.2> }
object { JarForm RawClay(<0.36, 0.17, 0.095>) scale 0.95 translate <5.6, 0, 1.2> }
object { BottleForm Glaze(<0.035, 0.028, 0.025>, <0.20, 0.09, 0.04>, 0.15, 1) scale 1.05 translate <7.3, 0, 0.4> }
// A turntable with a fresh pot and a wet sheen.
cylinder { <0, 0, 0>, <0, 0.22, 0>, 1.35 pigment { rgb <0.14, 0.135, 0.13> } finish { diffuse 0.7 specular 0.3 roughness 0.02 reflection 0.04 } translate <-0.2, 0, -0.3> }
object { BowlForm texture { pigment { rgb <0.27, 0.205, 0.155> } normal { gradient y 0.12 scale 0.09 } finish { diffuse 0.8 specular 0.55 roughness 0.02 } } scale <0.95, 1.3, 0.95> translate <-0.2, 0.22, -0.3> }
// Tools, a cloth and the grey card.
cylinder { <1.3, 0.08, -1.7>, <3.3, 0.08, -1.2>, 0.075 Wood(<0.36, 0.25, 0.14>, <0.22, 0.13, 0.07>, <0, 0, 0>) }
cylinder { <1.5, 0.06, -2.1>, <3.0, 0.06, -2.2>, 0.05 pigment { rgb 0.25 } finish { diffuse 0.5 specular 0.6 roughness 0.02 reflection 0.25 } }
superellipsoid { <0.5, 0.4> scale <1.2, 0.12, 0.75> texture { pigment { rgb <0.10, 0.16, 0.20> } normal { wrinkles 0.9 scale 0.5 } finish { diffuse 0.9 } } rotate y * 14 translate <-5.1, 0.1, -1.6> }
object { GreyCard scale 1.2 rotate x * 58 rotate y * 8 translate <-2.75, 0.02, -2.2> }
