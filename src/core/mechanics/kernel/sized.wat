;; What many sources did, by a size of their own in every draw. All places in bytes from the start of the memory.
(module
  (import "room" "memory" (memory 1))
  ;; out += sizes' units. out: draws x outputs. units: one row of outputs per source. sizes: one row of draws per source.
  (func (export "addSized") (param $out i32) (param $draws i32) (param $outputs i32) (param $units i32) (param $sizes i32)
    (param $sources i32)
    (local $row i32)    ;; bytes of a row of outputs
    (local $next i32)   ;; bytes of a row of draws
    (local $endSizes i32) (local $endUnits i32)
    (local $first i32)  ;; a draw's size of the first source
    (local $j i32)      ;; output, in bytes
    (local $at i32)
    (local $unit i32)
    (local $size i32)
    (local $by v128)
    (local $x0 v128) (local $x1 v128) (local $x2 v128) (local $x3 v128)
    (local $one f64)
    (local.set $row (i32.shl (local.get $outputs) (i32.const 3)))
    (local.set $next (i32.shl (local.get $draws) (i32.const 3)))
    (local.set $endSizes (i32.add (local.get $sizes) (local.get $next)))
    (local.set $endUnits (i32.add (local.get $units) (i32.mul (local.get $sources) (local.get $row))))
    ;; Eight outputs at a time, for all draws: what sources do to eight is near at hand until the last draw has it.
    (block $noMore
      (loop $eight
        (br_if $noMore (i32.gt_u (i32.add (local.get $j) (i32.const 64)) (local.get $row)))
        (local.set $at (i32.add (local.get $out) (local.get $j)))
        (local.set $first (local.get $sizes))
        (block $done
          (loop $draw
            (br_if $done (i32.ge_u (local.get $first) (local.get $endSizes)))
            (local.set $x0 (v128.load (local.get $at)))
            (local.set $x1 (v128.load offset=16 (local.get $at)))
            (local.set $x2 (v128.load offset=32 (local.get $at)))
            (local.set $x3 (v128.load offset=48 (local.get $at)))
            (local.set $unit (i32.add (local.get $units) (local.get $j)))
            (local.set $size (local.get $first))
            (block $added
              (loop $source
                (br_if $added (i32.ge_u (local.get $unit) (local.get $endUnits)))
                (local.set $by (v128.load64_splat (local.get $size)))
                (local.set $x0 (f64x2.add (local.get $x0) (f64x2.mul (local.get $by) (v128.load (local.get $unit)))))
                (local.set $x1 (f64x2.add (local.get $x1) (f64x2.mul (local.get $by) (v128.load offset=16 (local.get $unit)))))
                (local.set $x2 (f64x2.add (local.get $x2) (f64x2.mul (local.get $by) (v128.load offset=32 (local.get $unit)))))
                (local.set $x3 (f64x2.add (local.get $x3) (f64x2.mul (local.get $by) (v128.load offset=48 (local.get $unit)))))
                (local.set $unit (i32.add (local.get $unit) (local.get $row)))
                (local.set $size (i32.add (local.get $size) (local.get $next)))
                (br $source)))
            (v128.store (local.get $at) (local.get $x0))
            (v128.store offset=16 (local.get $at) (local.get $x1))
            (v128.store offset=32 (local.get $at) (local.get $x2))
            (v128.store offset=48 (local.get $at) (local.get $x3))
            (local.set $at (i32.add (local.get $at) (local.get $row)))
            (local.set $first (i32.add (local.get $first) (i32.const 8)))
            (br $draw)))
        (local.set $j (i32.add (local.get $j) (i32.const 64)))
        (br $eight)))
    ;; What is left, one by one.
    (block $noMore
      (loop $single
        (br_if $noMore (i32.ge_u (local.get $j) (local.get $row)))
        (local.set $at (i32.add (local.get $out) (local.get $j)))
        (local.set $first (local.get $sizes))
        (block $done
          (loop $draw
            (br_if $done (i32.ge_u (local.get $first) (local.get $endSizes)))
            (local.set $one (f64.load (local.get $at)))
            (local.set $unit (i32.add (local.get $units) (local.get $j)))
            (local.set $size (local.get $first))
            (block $added
              (loop $source
                (br_if $added (i32.ge_u (local.get $unit) (local.get $endUnits)))
                (local.set $one (f64.add (local.get $one) (f64.mul (f64.load (local.get $size)) (f64.load (local.get $unit)))))
                (local.set $unit (i32.add (local.get $unit) (local.get $row)))
                (local.set $size (i32.add (local.get $size) (local.get $next)))
                (br $source)))
            (f64.store (local.get $at) (local.get $one))
            (local.set $at (i32.add (local.get $at) (local.get $row)))
            (local.set $first (i32.add (local.get $first) (i32.const 8)))
            (br $draw)))
        (local.set $j (i32.add (local.get $j) (i32.const 8)))
        (br $single)))))
