<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** A slot of what people say and nobody prints: what it means is printed in other words, so it adds nothing to a schema. */
trait OnlyHeard
{
    use InKeys;

    public function print(mixed $json, Scope $scope, array $around): null
    {
        return null;
    }

    public function properties(): array
    {
        return [];
    }

    public function required(): array
    {
        return [];
    }
}
