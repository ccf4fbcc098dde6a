// Ashglaze 11: the yard in snow. A low winter sun from the right, blue shadows, more than half of the frame near white.
#version 3.7;
#include "common.inc"
#include "outdoors.inc"
SceneSettings()

camera { location <-1.5, 3.9, -16> look_at <0.4, 2.5, 0> angle 50 right x * image_width / image_height }

light_source { <38, 17, -26> color rgb <2.5, 2.2, 1.85> area_light <1.6, 0, 0>, <0, 1.6, 0>, 3, 3 adaptive 1 jitter }
light_source { <-10, 50, -20> color rgb <0.16, 0.20, 0.28> area_light <34, 0, 0>, <0, 0, 34>, 6, 6 adaptive 1 jitter }
sphere { 0, 150 hollow pigment { gradient y scale 300 translate -150 color_map { [0.5 rgb <0.98, 1.0, 1.05>] [0.56 rgb <0.62, 0.78, 1.05>] [0.8 rgb <0.22, 0.40, 0.85>] } } finish { ambient 0 diffuse 0 emission 0.75 } no_shadow }

#declare SnowSkin = texture {
  pigment { bozo scale 3 color_map { [0 rgb <0.86, 0.87, 0.89>] [1 rgb <0.92, 0.92, 0.93>] } }
  normal { average normal_map { [1 bumps 0.25 scale 1.6] [0.6 granite 0.10 scale 0.5] } }
  finish { diffuse 0.95 specular 0.06 roughness 0.08 }
}
// A cap of snow that fits a round top of radius R.
#macro Cap(R, H) difference { sphere { 0, 1 scale <R, H, R> } box { <-9, -9, -9>, <9, -0.05 * H, 9> } texture { SnowSkin } } #end

// The ground with drifts, and footprints that lead to the door.
difference {
  union {
    box { <-80, -2, -30>, <80, 0, 80> }
    #local S = seed(4); #local I = 0;
    #while (I < 34) sphere { 0, 1 scale <3 + 4 * rand(S), 0.18 + 0.28 * rand(S), 2 + 3 * rand(S)> translate <-22 + 44 * rand(S), -0.1, -9 + 16 * rand(S)> } #local I = I + 1; #end
    sphere { 0, 1 scale <16, 1.1, 2.2> translate <6, -0.1, 6.2> }
  }
  #local I = 0;
  #while (I < 13) sphere { 0, 1 scale <0.20, 0.34, 0.40> rotate y * (12 - I * 3) translate <3.6 - 0.42 * I + 0.26 * (mod(I, 2) * 2 - 1), 0.22, -9.5 + 1.2 * I> } #local I = I + 1; #end
  texture { SnowSkin }
}
// The workshop's wall, a red door, a lit window, eaves with snow.
difference {
  box { <-4.6, 0, 7>, <30, 6.4, 9> }
  box { <-3.6, 0, 6>, <-0.8, 4.6, 8> } box { <3.5, 2, 6>, <7.1, 4.7, 8> }
  Plaster(<0.42, 0.36, 0.28>)
}
box { <-3.6, 0, 7.5>, <-0.8, 4.6, 7.8> Wood(<0.30, 0.055, 0.035>, <0.19, 0.032, 0.022>, <90, 0, 0>) }
box { <3.5, 2, 7.7>, <7.1, 4.7, 7.9> pigment { gradient y scale 5 color_map { [0 rgb <1.0, 0.62, 0.3> * 0.7] [1 rgb <1.0, 0.66, 0.34> * 1.3] } } finish { ambient 0 diffuse 0.2 emission 1 } }
union { box { <5.22, 2, 7.5>, <5.38, 4.7, 7.6> } box { <3.5, 3.3, 7.5>, <7.1, 3.42, 7.6> } pigment { rgb <0.12, 0.10, 0.08> } }
box { <-5.2, 6.3, 5.6>, <30, 6.6, 12> pigment { rgb <0.13, 0.09, 0.07> } }
superellipsoid { <0.35, 0.35> scale <18, 0.42, 3.4> translate <12.6, 6.95, 8.8> texture { SnowSkin } }
// A fence, bare trees, hills.
union {
  #local I = 0; #while (I < 13) box { <-0.09, 0, -0.09>, <0.09, 1.7, 0.09> translate <-19 + 1.15 * I, 0, 5.4> } #local I = I + 1; #end
  box { <-20, 0.7, 5.34>, <-4.6, 0.85, 5.46> } box { <-20, 1.3, 5.34>, <-4.6, 1.45, 5.46> }
  pigment { rgb <0.11, 0.08, 0.06> }
}
#macro BareTree(Size, Seed)
  #local R = seed(Seed);
  union {
    cone { 0, 0.035 * Size, y * 0.75 * Size, 0.010 * Size }
    #local I = 0;
    #while (I < 46)
      #local A = 2 * pi * rand(R); #local H = (0.22 + 0.5 * rand(R)) * Size; #local L = (0.12 + 0.24 * rand(R)) * Size;
      #local P = <0, H, 0>; #local Q = P + <L * cos(A), L * (0.55 + 0.5 * rand(R)), L * sin(A)>;
      cone { P, 0.012 * Size, Q, 0.004 * Size }
      #local J = 0; #while (J < 4) #local M = P + (Q - P) * (0.35 + 0.6 * rand(R)); #local B = 2 * pi * rand(R); cone { M, 0.005 * Size, M + 0.14 * Size * <cos(B), 0.8, sin(B)> * (0.4 + rand(R)), 0.0015 * Size } #local J = J + 1; #end
      #local I = I + 1;
    #end
    pigment { rgb <0.09, 0.07, 0.06> }
  }
#end
object { BareTree(10, 3) translate <-12, 0, 10> } object { BareTree(8, 8) translate <-17, 0, 16> } object { BareTree(12, 14) translate <-7.5, 0, 18> }
sphere { 0, 1 scale <60, 9, 20> translate <-34, -1, 80> texture { SnowSkin } } sphere { 0, 1 scale <60, 6, 20> translate <20, -1, 84> texture { SnowSkin } }

// Ware left out overnight, capped; a bench with the card; a blue jug brought out.
object { JarForm Glaze(<0.05, 0.22, 0.19>, <0.12, 0.34, 0.28>, 0.4, 0.7) scale 1.5 translate <3.1, 0.1, 2.2> } object { Cap(1.05, 0.62) translate <3.1, 3.03, 2.2> }
object { BottleForm Glaze(<0.34, 0.07, 0.03>, <0.36, 0.15, 0.06>, 0.3, 0.8) scale 1.2 translate <5.6, 0.1, 1.2> } object { Cap(0.42, 0.30) translate <5.6, 3.36, 1.2> }
object { Stack(6, <0.40, 0.22, 0.14>) translate <8.2, 0.1, 2.6> } object { Cap(1.12, 0.75) translate <8.2, 2.72, 2.6> }
box { <-5.6, 1.1, -2.4>, <-0.6, 1.32, -0.6> Wood(<0.27, 0.19, 0.12>, <0.15, 0.10, 0.065>, <0, 90, 0>) }
box { <-5.2, 0, -2.1>, <-4.9, 1.1, -1.8> pigment { rgb <0.09, 0.06, 0.04> } } box { <-1.3, 0, -2.1>, <-1.0, 1.1, -1.8> pigment { rgb <0.09, 0.06, 0.04> } }
superellipsoid { <0.5, 0.6> scale <0.95, 0.20, 0.62> translate <-1.15, 1.42, -1.2> texture { SnowSkin } }
object { JugForm Glaze(<0.03, 0.09, 0.30>, <0.10, 0.22, 0.46>, 0.4, 0.9) scale 0.95 rotate y * 30 translate <-2.25, 1.32, -1.35> }
object { CupForm Glaze(<0.46, 0.30, 0.06>, <0.52, 0.40, 0.14>, 0.3, 0.9) scale 0.85 translate <-1.15, 1.56, -1.5> }
object { GreyCard scale 1.1 rotate x * 12 rotate y * -14 translate <-4.5, 1.32, -1.9> }
