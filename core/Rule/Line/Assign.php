<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Performance\Finder;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;

/** Gives the record an owner: a person, the next of a team in turn, the least loaded, a manager. */
final readonly class Assign implements FindsPeople, Line, Writes
{
    private function __construct(private Field $owner, private Who $to)
    {
    }

    public static function kind(): string
    {
        return 'assign';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('Assign the {} to {to}')->orSaid(
            '(assign|give|hand|hand over|pass|transfer|reassign|route|move|pass on|delegate) [{}] [over |on ]to {to}',
            'make {to} [the ][new |its ]owner[ of {}]', '(set|change|put|switch) [the |its ]owner[ of {}] (to|on) {to}',
            'let {to} (own|have|take|take over) {}',
            '{to} (becomes|is|should be|takes over as) [the |its ][new ]owner[ of {}]', '(owner|new owner)[:| is| =| becomes] {to}',
            'assign {to}[ to {}| as owner| as the owner]',
            '{to} (takes|gets|takes over) {}', '{to} takes (over|{} over)',
        )->slot('', new ItsType)->slot('to', new PersonSlot);
    }

    public static function label(): string
    {
        return 'Assign the owner';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $to = self::shape()->read($context, $node)?->the('to', Who::class);
        $owner = $context->type->field($context->type->owner);

        return $to === null || $owner === null ? null : new self($owner, $to);
    }

    public function writes(RecordType $own): array
    {
        return [new Written($own->name, $this->owner->name, false, null, true)];
    }

    public function makes(): null
    {
        return null;
    }

    public function perform(ActionContext $performance): void
    {
        $found = Finder::find($this->to, $performance);
        if ($found->person === null) {
            $performance->failed($this->owner->label, "nobody was found: {$found->path}");

            return;
        }
        $performance->set($this->owner, $found->person->id);
        $performance->outcomes[count($performance->outcomes) - 1]['path'] = $found->path;
    }

    public function people(): array
    {
        return ['to' => $this->to];
    }
}
