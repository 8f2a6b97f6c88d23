<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** A slot that is said and heard as another one, and read in its own way. */
abstract readonly class WordedAs implements Worded
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return $this->slot()->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return $this->slot()->parse($typed, $at, $scope, $around);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return $this->slot()->schema();
    }

    abstract protected function slot(): Slot;
}
