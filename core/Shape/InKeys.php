<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** The schema of a slot that is spread over keys: as an object that has no others. */
trait InKeys
{
    public function schema(): array
    {
        return [
            'type' => 'object', ...($this->required() === [] ? [] : ['required' => $this->required()]),
            'additionalProperties' => false, 'properties' => $this->properties(),
        ];
    }
}
