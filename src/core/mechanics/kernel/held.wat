;; What lines hold and by how much seams overlap: a row for each draw, lines first. All places in bytes from the start of the memory;
;; rows are a multiple of twelve entries long, their lines of four.
(module
  (import "room" "memory" (memory 1))
  ;; Whether a line of a row holds more than its limit times `most`, or a seam overlaps by more than `touch`, or presses and came off
  ;; by more.
  (func $wrong (param $row i32) (param $width i32) (param $lines i32) (param $limit i32) (param $most f64) (param $touch f64)
    (param $pressed i32) (result i32)
    (local $any v128)
    (local $by v128)
    (local $off v128)
    (local $x v128)
    (local $at i32)
    (local $end i32)
    (local.set $by (f64x2.splat (local.get $most)))
    (local.set $at (local.get $row))
    (local.set $end (i32.add (local.get $row) (local.get $lines)))
    (block $done
      (loop $two
        (br_if $done (i32.ge_u (local.get $at) (local.get $end)))
        (local.set $any (v128.or (local.get $any)
          (f64x2.gt (f64x2.abs (v128.load (local.get $at)))
            (f64x2.mul (v128.load (local.get $limit)) (local.get $by)))))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (local.set $limit (i32.add (local.get $limit) (i32.const 16)))
        (br $two)))
    (local.set $by (f64x2.splat (local.get $touch)))
    (local.set $off (f64x2.neg (local.get $by)))
    (local.set $end (i32.add (local.get $row) (local.get $width)))
    (block $done
      (loop $two
        (br_if $done (i32.ge_u (local.get $at) (local.get $end)))
        (local.set $x (v128.load (local.get $at)))
        (local.set $any (v128.or (local.get $any)
          (v128.or (f64x2.gt (local.get $x) (local.get $by))
            (v128.and (f64x2.lt (local.get $x) (local.get $off))
              (f64x2.gt (v128.load (local.get $pressed)) (v128.const i64x2 0 0))))))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (local.set $pressed (i32.add (local.get $pressed) (i32.const 16)))
        (br $two)))
    (v128.any_true (local.get $any)))

  ;; held += sizes' forces, for all draws; wrong: takes whether something is wrong with a draw then. forces: a row per source. sizes: a
  ;; row of draws per source. most, touch: one of each per draw.
  (func (export "bring") (param $held i32) (param $draws i32) (param $width i32) (param $lines i32) (param $forces i32)
    (param $sizes i32) (param $sources i32) (param $limit i32) (param $most i32) (param $touch i32) (param $pressed i32)
    (param $wrong i32)
    (local $next i32)   ;; bytes of a row of draws
    (local $d i32)      ;; draw, in bytes
    (local $size f64)
    (local $by v128)
    (local $force i32)
    (local $lastForce i32)
    (local $at i32)
    (local $end i32)
    (local $from i32)
    (local.set $next (i32.shl (local.get $draws) (i32.const 3)))
    (local.set $lastForce (i32.add (local.get $forces) (i32.mul (local.get $sources) (local.get $width))))
    (block $all
      (loop $draw
        (br_if $all (i32.ge_u (local.get $d) (local.get $next)))
        (local.set $end (i32.add (local.get $held) (local.get $width)))
        (local.set $force (local.get $forces))
        (local.set $from (i32.add (local.get $sizes) (local.get $d)))
        (block $added
          (loop $source
            (br_if $added (i32.ge_u (local.get $force) (local.get $lastForce)))
            (local.set $by (v128.load64_splat (local.get $from)))
            (local.set $at (local.get $held))
            (loop $four
              (v128.store (local.get $at)
                (f64x2.add (v128.load (local.get $at)) (f64x2.mul (local.get $by) (v128.load (local.get $force)))))
              (v128.store offset=16 (local.get $at)
                (f64x2.add (v128.load offset=16 (local.get $at))
                  (f64x2.mul (local.get $by) (v128.load offset=16 (local.get $force)))))
              (local.set $at (i32.add (local.get $at) (i32.const 32)))
              (local.set $force (i32.add (local.get $force) (i32.const 32)))
              (br_if $four (i32.lt_u (local.get $at) (local.get $end))))
            (local.set $from (i32.add (local.get $from) (local.get $next)))
            (br $source)))
        (f64.store (i32.add (local.get $wrong) (local.get $d))
          (f64.convert_i32_u
            (call $wrong (local.get $held) (local.get $width) (local.get $lines) (local.get $limit)
              (f64.load (i32.add (local.get $most) (local.get $d))) (f64.load (i32.add (local.get $touch) (local.get $d)))
              (local.get $pressed))))
        (local.set $held (local.get $end))
        (local.set $pressed (i32.add (local.get $pressed) (i32.sub (local.get $width) (local.get $lines))))
        (local.set $d (i32.add (local.get $d) (i32.const 8)))
        (br $draw))))

  ;; row = start + what some units bring, each by its own amount. units: rows; which: the place of each among them (32 bits); by: its
  ;; amount. Returns whether something is wrong with the row then.
  (func (export "give") (param $row i32) (param $width i32) (param $lines i32) (param $start i32) (param $units i32)
    (param $which i32) (param $by i32) (param $count i32) (param $limit i32) (param $most f64) (param $touch f64)
    (param $pressed i32) (result i32)
    (local $j i32)      ;; column, in bytes
    (local $at i32)
    (local $of i32)     ;; place in `which`
    (local $end i32)
    (local $amount i32) ;; place in `by`
    (local $times v128)
    (local $x0 v128) (local $x1 v128) (local $x2 v128) (local $x3 v128) (local $x4 v128) (local $x5 v128)
    (local.set $end (i32.add (local.get $which) (i32.shl (local.get $count) (i32.const 2))))
    (block $done
      (loop $twelve
        (br_if $done (i32.ge_u (local.get $j) (local.get $width)))
        (local.set $at (i32.add (local.get $start) (local.get $j)))
        (local.set $x0 (v128.load (local.get $at)))
        (local.set $x1 (v128.load offset=16 (local.get $at)))
        (local.set $x2 (v128.load offset=32 (local.get $at)))
        (local.set $x3 (v128.load offset=48 (local.get $at)))
        (local.set $x4 (v128.load offset=64 (local.get $at)))
        (local.set $x5 (v128.load offset=80 (local.get $at)))
        (local.set $of (local.get $which))
        (local.set $amount (local.get $by))
        (block $added
          (loop $unit
            (br_if $added (i32.ge_u (local.get $of) (local.get $end)))
            (local.set $times (v128.load64_splat (local.get $amount)))
            (local.set $at (i32.add (i32.add (local.get $units) (local.get $j))
              (i32.mul (i32.load (local.get $of)) (local.get $width))))
            (local.set $x0 (f64x2.add (local.get $x0) (f64x2.mul (local.get $times) (v128.load (local.get $at)))))
            (local.set $x1 (f64x2.add (local.get $x1) (f64x2.mul (local.get $times) (v128.load offset=16 (local.get $at)))))
            (local.set $x2 (f64x2.add (local.get $x2) (f64x2.mul (local.get $times) (v128.load offset=32 (local.get $at)))))
            (local.set $x3 (f64x2.add (local.get $x3) (f64x2.mul (local.get $times) (v128.load offset=48 (local.get $at)))))
            (local.set $x4 (f64x2.add (local.get $x4) (f64x2.mul (local.get $times) (v128.load offset=64 (local.get $at)))))
            (local.set $x5 (f64x2.add (local.get $x5) (f64x2.mul (local.get $times) (v128.load offset=80 (local.get $at)))))
            (local.set $of (i32.add (local.get $of) (i32.const 4)))
            (local.set $amount (i32.add (local.get $amount) (i32.const 8)))
            (br $unit)))
        (local.set $at (i32.add (local.get $row) (local.get $j)))
        (v128.store (local.get $at) (local.get $x0))
        (v128.store offset=16 (local.get $at) (local.get $x1))
        (v128.store offset=32 (local.get $at) (local.get $x2))
        (v128.store offset=48 (local.get $at) (local.get $x3))
        (v128.store offset=64 (local.get $at) (local.get $x4))
        (v128.store offset=80 (local.get $at) (local.get $x5))
        (local.set $j (i32.add (local.get $j) (i32.const 96)))
        (br $twelve)))
    (call $wrong (local.get $row) (local.get $width) (local.get $lines) (local.get $limit) (local.get $most) (local.get $touch)
      (local.get $pressed))))
