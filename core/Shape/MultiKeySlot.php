<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** A slot whose value is spread over several keys of the object it is in. */
interface MultiKeySlot extends Slot
{
    /** @return list<string> */
    public function keys(): array;

    /** @return array<string, array<string, mixed>> what may stand under each key, as JSON Schema */
    public function properties(): array;

    /** @return list<string> the keys that have to be there */
    public function required(): array;
}
