;; Draws spans of pixels through a straight map by cubic convolution, all four rows of four pixels at once.
;; Memory: 0 to 2047 the weights, 256 phases of four 16-bit numbers in 1/4096; the rest as the caller lays it out.
(module
  (memory (export "memory") 1)

  ;; Grey at one place. sx, sy in 1/256 of a pixel from the second of the four pixels' centres.
  (func $cubic (param $grey i32) (param $row i32) (param $sx i32) (param $sy i32) (result i32)
    (local $p i32) (local $pixels v128) (local $across v128) (local $upper v128) (local $lower v128) (local $rows v128)
    (local.set $p
      (i32.add (local.get $grey)
        (i32.add (i32.mul (i32.sub (i32.shr_s (local.get $sy) (i32.const 8)) (i32.const 1)) (local.get $row))
                 (i32.sub (i32.shr_s (local.get $sx) (i32.const 8)) (i32.const 1)))))
    (local.set $pixels (v128.load32_zero (local.get $p)))
    (local.set $pixels (v128.load32_lane 1 (i32.add (local.get $p) (local.get $row)) (local.get $pixels)))
    (local.set $p (i32.add (local.get $p) (i32.shl (local.get $row) (i32.const 1))))
    (local.set $pixels (v128.load32_lane 2 (local.get $p) (local.get $pixels)))
    (local.set $pixels (v128.load32_lane 3 (i32.add (local.get $p) (local.get $row)) (local.get $pixels)))
    (local.set $across (v128.load64_splat (i32.shl (i32.and (local.get $sx) (i32.const 255)) (i32.const 3))))
    (local.set $upper (i32x4.dot_i16x8_s (i16x8.extend_low_i8x16_u (local.get $pixels)) (local.get $across)))
    (local.set $lower (i32x4.dot_i16x8_s (i16x8.extend_high_i8x16_u (local.get $pixels)) (local.get $across)))
    (local.set $rows
      (i32x4.shr_s
        (i32x4.add
          (i8x16.shuffle 0 1 2 3 8 9 10 11 16 17 18 19 24 25 26 27 (local.get $upper) (local.get $lower))
          (i8x16.shuffle 4 5 6 7 12 13 14 15 20 21 22 23 28 29 30 31 (local.get $upper) (local.get $lower)))
        (i32.const 4)))
    (local.set $rows
      (i32x4.mul (local.get $rows)
        (v128.load16x4_s (i32.shl (i32.and (local.get $sy) (i32.const 255)) (i32.const 3)))))
    (local.set $rows
      (i32x4.add (local.get $rows)
        (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $rows) (local.get $rows))))
    ;; 4096 x 256 is one: rounded.
    (i32.shr_s
      (i32.add (i32.add (i32x4.extract_lane 0 (local.get $rows)) (i32x4.extract_lane 1 (local.get $rows))) (i32.const 524288))
      (i32.const 20)))

  ;; A span of grey. Places and steps in 1/4096 of a pixel.
  (func (export "greySpan") (param $grey i32) (param $row i32) (param $out i32) (param $count i32)
    (param $x i32) (param $y i32) (param $dx i32) (param $dy i32)
    (local $end i32) (local $value i32)
    (local.set $end (i32.add (local.get $out) (local.get $count)))
    (loop $next
      (local.set $value
        (call $cubic (local.get $grey) (local.get $row)
          (i32.shr_s (local.get $x) (i32.const 4)) (i32.shr_s (local.get $y) (i32.const 4))))
      (v128.store8_lane 0 (local.get $out)
        (i8x16.narrow_i16x8_u (i16x8.splat (local.get $value)) (i16x8.splat (local.get $value))))
      (local.set $x (i32.add (local.get $x) (local.get $dx)))
      (local.set $y (i32.add (local.get $y) (local.get $dy)))
      (local.set $out (i32.add (local.get $out) (i32.const 1)))
      (br_if $next (i32.lt_u (local.get $out) (local.get $end)))))

  ;; A span of colour beside its grey: the nearest pixel's colour, lifted by what the grey differs from that pixel's.
  (func (export "colourSpan") (param $grey i32) (param $colour i32) (param $row i32) (param $made i32) (param $out i32)
    (param $count i32) (param $x i32) (param $y i32) (param $dx i32) (param $dy i32)
    (local $end i32) (local $near i32) (local $lift i32) (local $lifted v128)
    (local.set $end (i32.add (local.get $made) (local.get $count)))
    (loop $next
      (local.set $near
        (i32.add
          (i32.mul (i32.shr_s (i32.add (i32.shr_s (local.get $y) (i32.const 4)) (i32.const 128)) (i32.const 8)) (local.get $row))
          (i32.shr_s (i32.add (i32.shr_s (local.get $x) (i32.const 4)) (i32.const 128)) (i32.const 8))))
      (local.set $lift
        (i32.sub (i32.load8_u (local.get $made)) (i32.load8_u (i32.add (local.get $grey) (local.get $near)))))
      (local.set $lifted
        (i16x8.add
          (i16x8.extend_low_i8x16_u
            (v128.load32_zero (i32.add (local.get $colour) (i32.mul (local.get $near) (i32.const 3)))))
          (i16x8.splat (local.get $lift))))
      (local.set $lifted (i8x16.narrow_i16x8_u (local.get $lifted) (local.get $lifted)))
      (v128.store16_lane 0 (local.get $out) (local.get $lifted))
      (v128.store8_lane offset=2 2 (local.get $out) (local.get $lifted))
      (local.set $x (i32.add (local.get $x) (local.get $dx)))
      (local.set $y (i32.add (local.get $y) (local.get $dy)))
      (local.set $made (i32.add (local.get $made) (i32.const 1)))
      (local.set $out (i32.add (local.get $out) (i32.const 3)))
      (br_if $next (i32.lt_u (local.get $made) (local.get $end)))))
)
