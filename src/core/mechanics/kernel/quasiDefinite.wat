;; A x = b for a symmetric matrix that needs no pivots, as L D L'. All places in bytes from the start of the memory.
(module
  (import "room" "memory" (memory 1))
  ;; The sum of x_i y_i over k of each: the even ones and the odd ones, then both.
  (func $dot (param $x i32) (param $y i32) (param $k i32) (result f64)
    (local $sum v128)
    (local $end i32)
    (local $even f64)
    (local.set $end (i32.add (local.get $x) (i32.shl (i32.and (local.get $k) (i32.const -2)) (i32.const 3))))
    (block $done
      (loop $pairs
        (br_if $done (i32.ge_u (local.get $x) (local.get $end)))
        (local.set $sum (f64x2.add (local.get $sum) (f64x2.mul (v128.load (local.get $x)) (v128.load (local.get $y)))))
        (local.set $x (i32.add (local.get $x) (i32.const 16)))
        (local.set $y (i32.add (local.get $y) (i32.const 16)))
        (br $pairs)))
    (local.set $even (f64x2.extract_lane 0 (local.get $sum)))
    (if (i32.and (local.get $k) (i32.const 1))
      (then (local.set $even (f64.add (local.get $even) (f64.mul (f64.load (local.get $x)) (f64.load (local.get $y)))))))
    (f64.add (local.get $even) (f64x2.extract_lane 1 (local.get $sum))))

  ;; a: the lower half, m rows of `row` bytes; takes L. d: takes D. b: the right side; takes x. small: the least pivot, as a share
  ;; of its diagonal. Returns nought where the matrix is singular.
  (func (export "solve") (param $a i32) (param $row i32) (param $m i32) (param $d i32) (param $b i32) (param $small f64)
    (result i32)
    (local $i i32)
    (local $k i32)
    (local $own i32)    ;; row i
    (local $other i32)  ;; row k
    (local $v f64)
    (local $l f64)
    (local $whole f64)
    (block $factored
      (loop $rows
        (br_if $factored (i32.ge_u (local.get $i) (local.get $m)))
        (local.set $own (i32.add (local.get $a) (i32.mul (local.get $i) (local.get $row))))
        ;; L D of this row.
        (local.set $k (i32.const 0))
        (local.set $other (local.get $a))
        (block $ready
          (loop $columns
            (br_if $ready (i32.ge_u (local.get $k) (local.get $i)))
            (f64.store (i32.add (local.get $own) (i32.shl (local.get $k) (i32.const 3)))
              (f64.sub (f64.load (i32.add (local.get $own) (i32.shl (local.get $k) (i32.const 3))))
                (call $dot (local.get $own) (local.get $other) (local.get $k))))
            (local.set $other (i32.add (local.get $other) (local.get $row)))
            (local.set $k (i32.add (local.get $k) (i32.const 1)))
            (br $columns)))
        ;; L, and what is left on the diagonal.
        (local.set $whole (f64.load (i32.add (local.get $own) (i32.shl (local.get $i) (i32.const 3)))))
        (local.set $v (local.get $whole))
        (local.set $k (i32.const 0))
        (block $ready
          (loop $columns
            (br_if $ready (i32.ge_u (local.get $k) (local.get $i)))
            (local.set $other (i32.add (local.get $own) (i32.shl (local.get $k) (i32.const 3))))
            (local.set $l (f64.div (f64.load (local.get $other))
              (f64.load (i32.add (local.get $d) (i32.shl (local.get $k) (i32.const 3))))))
            (local.set $v (f64.sub (local.get $v) (f64.mul (local.get $l) (f64.load (local.get $other)))))
            (f64.store (local.get $other) (local.get $l))
            (local.set $k (i32.add (local.get $k) (i32.const 1)))
            (br $columns)))
        (if (i32.eqz (f64.gt (f64.abs (local.get $v)) (f64.mul (local.get $small) (f64.abs (local.get $whole)))))
          (then (return (i32.const 0))))
        (f64.store (i32.add (local.get $d) (i32.shl (local.get $i) (i32.const 3))) (local.get $v))
        (f64.store (i32.add (local.get $b) (i32.shl (local.get $i) (i32.const 3)))
          (f64.sub (f64.load (i32.add (local.get $b) (i32.shl (local.get $i) (i32.const 3))))
            (call $dot (local.get $own) (local.get $b) (local.get $i))))
        (local.set $i (i32.add (local.get $i) (i32.const 1)))
        (br $rows)))
    (local.set $i (i32.const 0))
    (block $divided
      (loop $entries
        (br_if $divided (i32.ge_u (local.get $i) (local.get $m)))
        (local.set $k (i32.add (local.get $b) (i32.shl (local.get $i) (i32.const 3))))
        (f64.store (local.get $k)
          (f64.div (f64.load (local.get $k)) (f64.load (i32.add (local.get $d) (i32.shl (local.get $i) (i32.const 3))))))
        (local.set $i (i32.add (local.get $i) (i32.const 1)))
        (br $entries)))
    (block $solved
      (loop $rows
        (br_if $solved (i32.eqz (local.get $i)))
        (local.set $i (i32.sub (local.get $i) (i32.const 1)))
        (local.set $own (i32.add (local.get $a) (i32.mul (local.get $i) (local.get $row))))
        (local.set $v (f64.load (i32.add (local.get $b) (i32.shl (local.get $i) (i32.const 3)))))
        (local.set $k (i32.const 0))
        (block $ready
          (loop $columns
            (br_if $ready (i32.ge_u (local.get $k) (local.get $i)))
            (local.set $other (i32.add (local.get $b) (i32.shl (local.get $k) (i32.const 3))))
            (f64.store (local.get $other) (f64.sub (f64.load (local.get $other)) (f64.mul
              (f64.load (i32.add (local.get $own) (i32.shl (local.get $k) (i32.const 3)))) (local.get $v))))
            (local.set $k (i32.add (local.get $k) (i32.const 1)))
            (br $columns)))
        (br $rows)))
    (i32.const 1)))
