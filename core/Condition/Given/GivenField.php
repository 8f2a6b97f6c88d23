<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Condition\QueryWriter;
use VividLedger\Facts\View;
use VividLedger\People\Owner;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Keyed;
use VividLedger\Shape\WordRole;

/** The value of another field, of this record or of one it refers to. */
final readonly class GivenField implements Given
{
    public function __construct(private Path $path)
    {
    }

    public static function kind(): string
    {
        return 'field';
    }

    public static function shape(): Shape
    {
        // "Owner is Reviewer" compares two fields; "Owner is the Reviewer" finds a person, with what that takes.
        return Shape::of(self::kind())->says('{bare}')->says('{path}')
            ->slot('bare', new Keyed('path', new ComparedField(isBare: true)))->slot('path', new ComparedField);
    }

    /** Two fields of one kind can hold the same values; a choice only compares with the same choices. */
    public static function alike(Field $one, Field $other): bool
    {
        return match (true) {
            $one->type->isDecimal() => $other->type->isDecimal(),
            $one->type->isText() => $other->type->isText(),
            default => $one->type === $other->type && $one->target === $other->target,
        };
    }

    public function value(View $view, Field $for): string|int|bool|null
    {
        return $view->value($this->path);
    }

    public function wording(): string
    {
        return $this->path->label();
    }

    public function role(): WordRole
    {
        return WordRole::Field;
    }

    public function paths(): array
    {
        return [$this->path];
    }

    public function query(QueryWriter $writer, Field $for): mixed
    {
        return $writer->fieldSide($this->path, $for);
    }
}
