<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\Readable;
use VividLedger\Record\Members;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** A set of choices or tags that has a member: one, or any or all of several. */
final class Has implements Operator
{
    public function __construct(private readonly string $how = 'has')
    {
    }

    public function kind(): string
    {
        return $this->how;
    }

    public function fits(FieldType $type): bool
    {
        return $type->isSet();
    }

    public function label(FieldType $type): string
    {
        return match ($this->how) {
            'has_any' => 'has any of',
            'has_all' => 'has all of',
            default => $type === FieldType::Tags ? 'has the tag' : 'has',
        };
    }

    public function operand(): Operand
    {
        return $this->how === 'has' ? Operand::One : Operand::Many;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function test(Field $field, array $operands): Closure
    {
        $wanted = array_map(strval(...), $operands);
        $all = $this->how === 'has_all';

        return static function (string|int|bool|null $value) use ($wanted, $all): bool {
            $found = count(array_intersect($wanted, Members::of($value)));

            return $all ? $found === count($wanted) : $found > 0;
        };
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        $parts = [];
        foreach ($operands as $operand) {
            $parts[] = $writer->has($left, is_scalar($operand) ? (string) $operand : '');
        }

        return $this->how === 'has_all' ? $writer->all($parts) : $writer->any($parts);
    }
}
