<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use Brick\Math\BigDecimal;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;

/**
 * A count, a sum, or the latest or earliest date over the children of a record, or of one it refers to. A count or sum
 * of nothing is zero; the latest of nothing is empty.
 */
final readonly class Total implements Derived
{
    private Field $shape;

    /**
     * @param  ?Path  $from  a reference to the record whose children are meant; null for the record itself
     * @param  ?Field  $of  the field that is summed or compared; null when counting
     */
    public function __construct(
        public TotalKind $kind,
        public Children $children,
        public ?Field $of,
        public ?Path $from,
        private string $label,
    ) {
        $this->shape = $of === null || $kind === TotalKind::Count
            ? new Field('count', $label, FieldType::Number, scale: 0)
            : new Field($of->name, $label, $of->type, scale: $of->scale, currency: $of->currency);
    }

    /** How many children there are, whichever they are. */
    public static function countOf(Children $children): self
    {
        return new self(TotalKind::Count, $children, null, null, 'Number');
    }

    public function field(): Field
    {
        return $this->shape;
    }

    public function label(): string
    {
        return $this->label;
    }

    public function value(View $view): ?string
    {
        $parent = $this->from === null ? $view->record->id : $view->value($this->from);

        return is_int($parent) ? $view->facts->total($this, $parent, []) : $this->over([]);
    }

    /** @param  iterable<Record>  $records children that have been chosen already */
    public function over(iterable $records): ?string
    {
        $count = 0;
        $sum = BigDecimal::zero();
        $edge = null;
        foreach ($records as $record) {
            $count++;
            $value = $this->of === null ? null : $record->value($this->of->name);
            if (! is_string($value)) {
                continue;
            }
            if ($this->kind === TotalKind::Sum) {
                $sum = $sum->plus($value);
            } elseif ($edge === null || ($this->kind === TotalKind::Latest ? $value > $edge : $value < $edge)) {
                $edge = $value;
            }
        }

        return match ($this->kind) {
            TotalKind::Count => (string) $count,
            TotalKind::Sum => (string) $sum->toScale($this->shape->scale),
            default => $edge,
        };
    }

    /** Two totals over different records as one over all of them. */
    public function together(?string $one, ?string $other): ?string
    {
        if ($one === null || $other === null) {
            return $one ?? $other;
        }

        return match ($this->kind) {
            TotalKind::Count => (string) ((int) $one + (int) $other),
            TotalKind::Sum => (string) BigDecimal::of($one)->plus($other),
            TotalKind::Latest => max($one, $other),
            TotalKind::Earliest => min($one, $other),
        };
    }

    /** @return string|false|null a total over fewer records; false where it cannot be told from the total alone */
    public function less(?string $all, ?string $some): string|false|null
    {
        if ($all === null || $some === null) {
            return $all;
        }

        return match ($this->kind) {
            TotalKind::Count => (string) ((int) $all - (int) $some),
            TotalKind::Sum => (string) BigDecimal::of($all)->minus($some),
            default => $all === $some ? false : $all,
        };
    }
}
