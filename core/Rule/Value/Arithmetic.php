<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Record\RefusedValue;
use VividLedger\Record\Value;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/**
 * What the field holds, plus, minus or times an amount. Exact; an empty field counts as zero. Where the field has bounds,
 * a value beyond them either stays at the bound or refuses the save, as chosen.
 */
abstract readonly class Arithmetic implements AssignedValue
{
    final public function __construct(private string|Path $amount, private bool $refuses)
    {
    }

    abstract protected static function word(): string;

    abstract protected function result(BigDecimal $value, BigDecimal $amount): BigDecimal;

    public static function fits(Field $field): bool
    {
        return $field->type->isDecimal();
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return $isNew ? [] : [new Offer('what it is '.static::word().'…', ['kind' => static::kind()], 'Or')];
    }

    public static function shape(): Shape
    {
        return Shape::of(static::kind())->says('what it is '.static::word().' {amount}[, {beyond}]')
            ->orSaid('itself '.static::word().' {amount}[, {beyond}]', 'its value '.static::word().' {amount}[, {beyond}]')
            ->slot('amount', new AmountSlot)
            ->slot('beyond', Labels::of(['and no further' => 'stop', 'or the save is refused' => 'refuse']));
    }

    public static function deeds(): Shape
    {
        return Shape::of(static::kind())->orSaid(...static::deedsSaid())->orSaidWith(
            ['amount' => static::usual()],
            ...static::usuallySaid(),
        )
            ->slot('field', new SettableField(static::class))->slot('amount', new AmountSlot);
    }

    /** @return list<string> */
    abstract protected static function deedsSaid(): array;

    /** The amount that is meant where none is said. */
    abstract protected static function usual(): string;

    /** @return list<string> */
    abstract protected static function usuallySaid(): array;

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?static
    {
        $read = static::shape()->opens(static fn (): Editor => $editor)->apart('beyond')->read($context, $node);
        if ($read === null) {
            return null;
        }
        $refuses = $node->child('beyond')->raw === 'refuse';
        if ($field->min !== null || $field->max !== null) {
            $bounds = implode(', ', array_filter([
                $field->min === null ? '' : "at least {$field->min}", $field->max === null ? '' : "at most {$field->max}",
            ]));
            $context->choice($refuses ? "({$bounds}, or the save is refused)"
                : "({$bounds}, and no further)", WordRole::Glue, $node->child('beyond')->at, static fn (): array => [
                    new Offer('stay at the bound', 'stop'), new Offer('refuse the save', 'refuse'),
                ]);
        }

        $amount = $read->raw('amount');

        return new static($amount instanceof Path ? $amount : $read->text('amount'), $refuses);
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): ?string
    {
        $amount = $this->amount instanceof Path ? $performance->view()->value($this->amount) : $this->amount;
        if (! is_string($amount)) {
            throw new InvalidValue(
                'no_value',
                Words::say('{amount} is empty, so there is nothing to reckon with.', amount: $this->amount->label()),
            );
        }
        $result = $this->result(
            BigDecimal::of((string) ($target?->value($field->name) ?? '0')),
            BigDecimal::of($amount),
        )->toScale($field->scale, RoundingMode::HALF_UP);
        foreach (['min' => -1, 'max' => 1] as $bound => $beyond) {
            $limit = $bound === 'min' ? $field->min : $field->max;
            if ($limit === null || $result->compareTo($limit) !== $beyond) {
                continue;
            }
            if ($this->refuses) {
                $parts = ['field' => $field->label, 'result' => (string) $result, 'limit' => (string) $limit];
                throw new RefusedValue($bound === 'min' ? Words::say('{field} would be {result}, and is at least {limit}.', ...$parts)
                    : Words::say('{field} would be {result}, and is at most {limit}.', ...$parts));
            }
            $result = BigDecimal::of($limit)->toScale($field->scale);
        }
        $value = Value::of($field, (string) $result);

        return is_string($value) ? $value : null;
    }
}
