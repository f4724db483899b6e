;; A symmetric matrix S of which the lower half is kept, row-major, n x n; all places in bytes from the start of the memory.
(module
  (import "room" "memory" (memory 1))
  ;; S -= U W, with U and W of six rows of n, one after the other: two rows of S at a time, two columns at once. What stands above
  ;; the diagonal of every second row is written too; nothing reads it. With an odd size the last row is left out.
  (func (export "lowerSix") (param $s i32) (param $n i32) (param $u i32) (param $w i32)
    (local $row i32)    ;; bytes of a row
    (local $i i32)      ;; first of the two rows, in bytes of a row
    (local $last i32)   ;; where the pairs of rows end
    (local $p i32)      ;; entry of the first row
    (local $q i32)      ;; the same of the second
    (local $j i32)      ;; column, in bytes
    (local $at i32)
    (local $w1 i32) (local $w2 i32) (local $w3 i32) (local $w4 i32) (local $w5 i32)
    (local $u0 v128) (local $u1 v128) (local $u2 v128) (local $u3 v128) (local $u4 v128) (local $u5 v128)
    (local $v0 v128) (local $v1 v128) (local $v2 v128) (local $v3 v128) (local $v4 v128) (local $v5 v128)
    (local $x0 v128) (local $x1 v128) (local $x2 v128) (local $x3 v128) (local $x4 v128) (local $x5 v128)
    (local.set $row (i32.shl (local.get $n) (i32.const 3)))
    (local.set $last (i32.shl (i32.and (local.get $n) (i32.const -2)) (i32.const 3)))
    (local.set $w1 (i32.add (local.get $w) (local.get $row)))
    (local.set $w2 (i32.add (local.get $w1) (local.get $row)))
    (local.set $w3 (i32.add (local.get $w2) (local.get $row)))
    (local.set $w4 (i32.add (local.get $w3) (local.get $row)))
    (local.set $w5 (i32.add (local.get $w4) (local.get $row)))
    (local.set $p (local.get $s))
    (block $done
      (loop $rows
        (br_if $done (i32.ge_u (local.get $i) (local.get $last)))
        (local.set $q (i32.add (local.get $p) (local.get $row)))
        (local.set $at (i32.add (local.get $u) (local.get $i)))
        (local.set $u0 (v128.load64_splat (local.get $at)))
        (local.set $v0 (v128.load64_splat offset=8 (local.get $at)))
        (local.set $at (i32.add (local.get $at) (local.get $row)))
        (local.set $u1 (v128.load64_splat (local.get $at)))
        (local.set $v1 (v128.load64_splat offset=8 (local.get $at)))
        (local.set $at (i32.add (local.get $at) (local.get $row)))
        (local.set $u2 (v128.load64_splat (local.get $at)))
        (local.set $v2 (v128.load64_splat offset=8 (local.get $at)))
        (local.set $at (i32.add (local.get $at) (local.get $row)))
        (local.set $u3 (v128.load64_splat (local.get $at)))
        (local.set $v3 (v128.load64_splat offset=8 (local.get $at)))
        (local.set $at (i32.add (local.get $at) (local.get $row)))
        (local.set $u4 (v128.load64_splat (local.get $at)))
        (local.set $v4 (v128.load64_splat offset=8 (local.get $at)))
        (local.set $at (i32.add (local.get $at) (local.get $row)))
        (local.set $u5 (v128.load64_splat (local.get $at)))
        (local.set $v5 (v128.load64_splat offset=8 (local.get $at)))
        (local.set $j (i32.const 0))
        (loop $columns
          (local.set $x0 (v128.load (i32.add (local.get $w) (local.get $j))))
          (local.set $x1 (v128.load (i32.add (local.get $w1) (local.get $j))))
          (local.set $x2 (v128.load (i32.add (local.get $w2) (local.get $j))))
          (local.set $x3 (v128.load (i32.add (local.get $w3) (local.get $j))))
          (local.set $x4 (v128.load (i32.add (local.get $w4) (local.get $j))))
          (local.set $x5 (v128.load (i32.add (local.get $w5) (local.get $j))))
          (local.set $at (i32.add (local.get $p) (local.get $j)))
          (v128.store (local.get $at)
            (f64x2.sub (v128.load (local.get $at))
              (f64x2.add (f64x2.add (f64x2.add (f64x2.add (f64x2.add (f64x2.mul (local.get $u0) (local.get $x0))
                (f64x2.mul (local.get $u1) (local.get $x1)))
                (f64x2.mul (local.get $u2) (local.get $x2)))
                (f64x2.mul (local.get $u3) (local.get $x3)))
                (f64x2.mul (local.get $u4) (local.get $x4)))
                (f64x2.mul (local.get $u5) (local.get $x5)))))
          (local.set $at (i32.add (local.get $q) (local.get $j)))
          (v128.store (local.get $at)
            (f64x2.sub (v128.load (local.get $at))
              (f64x2.add (f64x2.add (f64x2.add (f64x2.add (f64x2.add (f64x2.mul (local.get $v0) (local.get $x0))
                (f64x2.mul (local.get $v1) (local.get $x1)))
                (f64x2.mul (local.get $v2) (local.get $x2)))
                (f64x2.mul (local.get $v3) (local.get $x3)))
                (f64x2.mul (local.get $v4) (local.get $x4)))
                (f64x2.mul (local.get $v5) (local.get $x5)))))
          (local.set $j (i32.add (local.get $j) (i32.const 16)))
          (br_if $columns (i32.le_u (local.get $j) (local.get $i))))
        (local.set $p (i32.add (local.get $q) (local.get $row)))
        (local.set $i (i32.add (local.get $i) (i32.const 16)))
        (br $rows))))

  ;; out = S E_c q: six columns from c on, each times its own of q. c is even.
  (func (export "reachSix") (param $s i32) (param $n i32) (param $c i32) (param $q i32) (param $out i32)
    (local $row i32)    ;; bytes of a row
    (local $first i32)  ;; c in bytes
    (local $end i32)    ;; n in bytes
    (local $j i32)      ;; place in out, in bytes
    (local $k i32)
    (local $at i32)
    (local $r0 i32) (local $r1 i32) (local $r2 i32) (local $r3 i32) (local $r4 i32) (local $r5 i32)
    (local $sum f64)
    (local $two v128)
    (local $q0 v128) (local $q1 v128) (local $q2 v128) (local $q3 v128) (local $q4 v128) (local $q5 v128)
    (local.set $row (i32.shl (local.get $n) (i32.const 3)))
    (local.set $end (local.get $row))
    (local.set $first (i32.shl (local.get $c) (i32.const 3)))
    (local.set $q0 (v128.load64_splat (local.get $q)))
    (local.set $q1 (v128.load64_splat offset=8 (local.get $q)))
    (local.set $q2 (v128.load64_splat offset=16 (local.get $q)))
    (local.set $q3 (v128.load64_splat offset=24 (local.get $q)))
    (local.set $q4 (v128.load64_splat offset=32 (local.get $q)))
    (local.set $q5 (v128.load64_splat offset=40 (local.get $q)))
    (local.set $r0 (i32.add (local.get $s) (i32.mul (local.get $c) (local.get $row))))
    (local.set $r1 (i32.add (local.get $r0) (local.get $row)))
    (local.set $r2 (i32.add (local.get $r1) (local.get $row)))
    (local.set $r3 (i32.add (local.get $r2) (local.get $row)))
    (local.set $r4 (i32.add (local.get $r3) (local.get $row)))
    (local.set $r5 (i32.add (local.get $r4) (local.get $row)))
    ;; Before c: along the six rows.
    (block $before
      (loop $pairs
        (br_if $before (i32.ge_u (local.get $j) (local.get $first)))
        (v128.store (i32.add (local.get $out) (local.get $j))
          (f64x2.add (f64x2.add (f64x2.add (f64x2.add (f64x2.add
            (f64x2.mul (local.get $q0) (v128.load (i32.add (local.get $r0) (local.get $j))))
            (f64x2.mul (local.get $q1) (v128.load (i32.add (local.get $r1) (local.get $j)))))
            (f64x2.mul (local.get $q2) (v128.load (i32.add (local.get $r2) (local.get $j)))))
            (f64x2.mul (local.get $q3) (v128.load (i32.add (local.get $r3) (local.get $j)))))
            (f64x2.mul (local.get $q4) (v128.load (i32.add (local.get $r4) (local.get $j)))))
            (f64x2.mul (local.get $q5) (v128.load (i32.add (local.get $r5) (local.get $j))))))
        (local.set $j (i32.add (local.get $j) (i32.const 16)))
        (br $pairs)))
    ;; The six themselves: what stands above the diagonal is read from below it.
    (loop $own
      (local.set $sum (f64.const 0))
      (local.set $k (i32.const 0))
      (loop $of
        (local.set $at (i32.add (local.get $first) (local.get $k)))
        (local.set $at
          (if (result i32) (i32.le_u (local.get $at) (local.get $j))
            (then (i32.add (i32.mul (local.get $j) (local.get $n)) (local.get $at)))
            (else (i32.add (i32.mul (local.get $at) (local.get $n)) (local.get $j)))))
        (local.set $sum (f64.add (local.get $sum) (f64.mul
          (f64.load (i32.add (local.get $q) (local.get $k)))
          (f64.load (i32.add (local.get $s) (local.get $at))))))
        (local.set $k (i32.add (local.get $k) (i32.const 8)))
        (br_if $of (i32.lt_u (local.get $k) (i32.const 48))))
      (f64.store (i32.add (local.get $out) (local.get $j)) (local.get $sum))
      (local.set $j (i32.add (local.get $j) (i32.const 8)))
      (br_if $own (i32.lt_u (local.get $j) (i32.add (local.get $first) (i32.const 48)))))
    ;; After them: six entries of every row, the even ones and the odd ones.
    (local.set $q0 (v128.load (local.get $q)))
    (local.set $q2 (v128.load offset=16 (local.get $q)))
    (local.set $q4 (v128.load offset=32 (local.get $q)))
    (local.set $at (i32.add (i32.add (local.get $s) (i32.mul (local.get $j) (local.get $n))) (local.get $first)))
    (block $after
      (loop $rows
        (br_if $after (i32.ge_u (local.get $j) (local.get $end)))
        (local.set $two (f64x2.add (f64x2.add
          (f64x2.mul (local.get $q0) (v128.load (local.get $at)))
          (f64x2.mul (local.get $q2) (v128.load offset=16 (local.get $at))))
          (f64x2.mul (local.get $q4) (v128.load offset=32 (local.get $at)))))
        (f64.store (i32.add (local.get $out) (local.get $j))
          (f64.add (f64x2.extract_lane 0 (local.get $two)) (f64x2.extract_lane 1 (local.get $two))))
        (local.set $at (i32.add (local.get $at) (local.get $row)))
        (local.set $j (i32.add (local.get $j) (i32.const 8)))
        (br $rows))))

  ;; out += S h, with every entry of the lower half read once for both of its places.
  (func (export "timesAll") (param $s i32) (param $n i32) (param $h i32) (param $out i32)
    (local $row i32)    ;; bytes of a row
    (local $i i32)      ;; first of the two rows, in bytes of an entry
    (local $last i32)   ;; where the pairs of rows end
    (local $t i32)      ;; the second row
    (local $j i32)      ;; column, in bytes
    (local $at i32)
    (local $v f64)
    (local $sum v128)   ;; of the first row, even columns and odd ones
    (local $sum2 v128)  ;; of the second
    (local $own v128)   ;; h of the first row, twice
    (local $own2 v128)
    (local $two v128)
    (local $two2 v128)
    (local $by v128)
    (local.set $row (i32.shl (local.get $n) (i32.const 3)))
    (local.set $last (i32.shl (i32.and (local.get $n) (i32.const -2)) (i32.const 3)))
    (block $done
      (loop $rows
        (br_if $done (i32.ge_u (local.get $i) (local.get $last)))
        (local.set $t (i32.add (local.get $s) (local.get $row)))
        (local.set $own (v128.load64_splat (i32.add (local.get $h) (local.get $i))))
        (local.set $own2 (v128.load64_splat offset=8 (i32.add (local.get $h) (local.get $i))))
        (local.set $sum (v128.const i64x2 0 0))
        (local.set $sum2 (v128.const i64x2 0 0))
        (local.set $j (i32.const 0))
        (block $ready
          (loop $columns
            (br_if $ready (i32.ge_u (local.get $j) (local.get $i)))
            (local.set $two (v128.load (i32.add (local.get $s) (local.get $j))))
            (local.set $two2 (v128.load (i32.add (local.get $t) (local.get $j))))
            (local.set $by (v128.load (i32.add (local.get $h) (local.get $j))))
            (local.set $sum (f64x2.add (local.get $sum) (f64x2.mul (local.get $two) (local.get $by))))
            (local.set $sum2 (f64x2.add (local.get $sum2) (f64x2.mul (local.get $two2) (local.get $by))))
            (local.set $at (i32.add (local.get $out) (local.get $j)))
            (v128.store (local.get $at)
              (f64x2.add (f64x2.add (v128.load (local.get $at)) (f64x2.mul (local.get $two) (local.get $own)))
                (f64x2.mul (local.get $two2) (local.get $own2))))
            (local.set $j (i32.add (local.get $j) (i32.const 16)))
            (br $columns)))
        ;; The diagonal of the first; what the second has before its own, and that.
        (local.set $at (i32.add (local.get $out) (local.get $i)))
        (local.set $v (f64.load (i32.add (local.get $t) (local.get $i))))
        (f64.store (local.get $at)
          (f64.add
            (f64.add
              (f64.add (f64.load (local.get $at))
                (f64.add (f64x2.extract_lane 0 (local.get $sum)) (f64x2.extract_lane 1 (local.get $sum))))
              (f64.mul (f64.load (i32.add (local.get $s) (local.get $i))) (f64x2.extract_lane 0 (local.get $own))))
            (f64.mul (local.get $v) (f64x2.extract_lane 0 (local.get $own2)))))
        (f64.store offset=8 (local.get $at)
          (f64.add
            (f64.add (f64.load offset=8 (local.get $at))
              (f64.add
                (f64.add (f64x2.extract_lane 0 (local.get $sum2)) (f64.mul (local.get $v) (f64x2.extract_lane 0 (local.get $own))))
                (f64x2.extract_lane 1 (local.get $sum2))))
            (f64.mul (f64.load offset=8 (i32.add (local.get $t) (local.get $i))) (f64x2.extract_lane 0 (local.get $own2)))))
        (local.set $s (i32.add (local.get $t) (local.get $row)))
        (local.set $i (i32.add (local.get $i) (i32.const 16)))
        (br $rows)))
    ;; The last row of an odd size.
    (if (i32.lt_u (local.get $i) (local.get $row))
      (then
        (local.set $own (v128.load64_splat (i32.add (local.get $h) (local.get $i))))
        (local.set $sum (v128.const i64x2 0 0))
        (local.set $j (i32.const 0))
        (block $ready
          (loop $columns
            (br_if $ready (i32.ge_u (local.get $j) (local.get $i)))
            (local.set $two (v128.load (i32.add (local.get $s) (local.get $j))))
            (local.set $sum (f64x2.add (local.get $sum)
              (f64x2.mul (local.get $two) (v128.load (i32.add (local.get $h) (local.get $j))))))
            (local.set $at (i32.add (local.get $out) (local.get $j)))
            (v128.store (local.get $at)
              (f64x2.add (v128.load (local.get $at)) (f64x2.mul (local.get $two) (local.get $own))))
            (local.set $j (i32.add (local.get $j) (i32.const 16)))
            (br $columns)))
        (local.set $at (i32.add (local.get $out) (local.get $i)))
        (f64.store (local.get $at)
          (f64.add
            (f64.add (f64.load (local.get $at))
              (f64.add (f64x2.extract_lane 0 (local.get $sum)) (f64x2.extract_lane 1 (local.get $sum))))
            (f64.mul (f64.load (i32.add (local.get $s) (local.get $i))) (f64x2.extract_lane 0 (local.get $own)))))))))
