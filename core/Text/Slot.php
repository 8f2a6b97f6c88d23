<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Shape\Scope;

/** A kind of thing that has its place in a pattern: a field, a value, a person. What it prints, it reads. */
interface Slot
{
    /**
     * @param  mixed  $json  what stands in the rule file
     * @param  array<mixed>  $around  the object it stands in
     * @return ?string null when it has no words for it
     */
    public function print(mixed $json, Scope $scope, array $around): ?string;

    /**
     * @param  array<mixed>  $around  what was read of the object so far
     * @return ?array{mixed} what is to stand in the rule file; null when nothing of the kind stands at the cursor
     */
    public function parse(Cursor $cursor, Scope $scope, array $around): ?array;
}
