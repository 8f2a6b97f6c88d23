<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\Slot\FieldValue;

/** An existing record changed: in any field, or in one of the named fields, and of one field from and to certain values. */
final readonly class Changed extends OwnTrigger implements WatchesFields
{
    public function __construct(string $type, private ChangedFields $fields)
    {
        parent::__construct($type);
    }

    public static function kind(): string
    {
        return 'changed';
    }

    public static function label(): string
    {
        return 'is changed';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Triggers::chooser(...))->apart('subject', 'byHand')
            ->says('{subject} is changed in any field[, or by hand{byHand}]', ['fields' => []])
            ->says('{subject} is changed[ in {fields}][ from {from}][ to {to}][, or by hand{byHand}]')
            ->shows('is changed in {fields}[ from {from}][ to {to}]')->orSaid(
                '(on|at|after|upon) [a |any |every |each ]{owned} change[, or by hand{byHand}]',
                '(someone|somebody|anyone|anybody) {deed} {subject}[, or by hand{byHand}]',
                '(we|I|they|people|you) {deeds} {subject}[, or by hand{byHand}]',
                '{subject} (changes|is edited|is updated|was changed|is modified|has changed|gets changed|has been changed|'
                    .'changed)[ in| its|] {fields}'
                        .'[ from {from}][ to {to}][, or by hand{byHand}]',
                '{subject} (changes|is edited|is updated|was changed|is modified|gets changed|gets edited|has been changed|is '
                    .'changed in any way|changes in any way)[, or by hand{byHand}]',
                '(someone|somebody|anyone|anybody|a person) (changes|edits|updates|modifies|alters) {subject}[, or by hand{byHand}]',
                '{owned} (changes|is changed|has changed|was changed|is edited|is updated|is modified|gets changed|is different|'
                    .'changed|has been changed)'
                    .'[ from {from}][ to {to}][, or by hand{byHand}]',
                '(someone|somebody|anyone|anybody|a person) (changes|edits|updates|modifies|sets|alters|switches|puts|raises|lowers|'
                    .'moves) {owned}[ '
                    .'from {from}][ to {to}][, or by hand{byHand}]', '[a |any |every ]{owned} change[s]',
                '{owned} (becomes|turns|is set to|is changed to|changes to|goes to|moves to|gets|turns to|is now|is put to|gets '
                    .'set to|reaches|turns into|is made|'
                    .'switches to|has become|became|is switched to|is put on) {to}[, or by hand{byHand}]',
                '{owned} (goes|moves|changes|is changed|turns|is set|switches|is switched|jumps|rises|drops|is raised|is moved|is '
                    .'put|passes) from {from} to {to}[, or by hand{byHand}]',
                '{owned} (leaves|is no longer|stops being|moves away from|goes from|changes from|is changed from|moves from|'
                    .'changed from) {from}[, or by hand{byHand}]',
                '{subject} (is|becomes|gets|turns|goes|moves to|is marked as|is set to|goes to|is put to|is marked|reaches|enters|'
                    .'is moved to|comes to|has become) '
                    .'{reached}[, or by hand{byHand}]',
                '(on|at|after|upon) [a |any |every |each ]change (of|to|in) {owned}[ from {from}][ to {to}][, or by hand{byHand}]',
                '(on|at|after|upon) [a |any |every |each ]change (of|to) {subject}',
                '{subject} (goes|moves|changes|is moved|passes) from {left} to {to}[, or by hand{byHand}]',
                '(someone|somebody) (sets|moves|puts|changes|marks) {subject} [to |as ]{reached}[, or by hand{byHand}]',
                '{owned} (is|=) {to}[, or by hand{byHand}]',
            )->slot('subject', new Subject)->slot('byHand', new Always)->slot('owned', new WatchedField)
            ->slot('reached', new ReachedChoice('to'))->slot('deed', new ReachedDeed('s'))->slot('deeds', new ReachedDeed(''))
            ->slot('left', new ReachedChoice('from'))
            ->slot('fields', new FieldsToChange(FieldsToChange::named()))
            ->slot('from', new ChangedValue('from', FieldValue::of('fields')))
            ->slot('to', new ChangedValue('to', FieldValue::of('fields')));
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($context->type->name, ChangedFields::of($read, $context->display));
    }

    public function watch(): Watch
    {
        return new Watch($this->type, fields: $this->fields->names);
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return $change->before !== null && $change->after !== null && $change->event === null && $this->fields->changedIn($change);
    }

    public function asksNoMore(): bool
    {
        return ! $this->fields->asksValues();
    }

    public function wanted(): string
    {
        return self::label().$this->fields->wording();
    }

    public function fields(): ?array
    {
        return $this->fields->names;
    }

    public function arrival(): ?array
    {
        return $this->fields->single === null || $this->fields->to === null ? null : [$this->fields->single, $this->fields->to];
    }

    public function opening(Proposal $proposal): Opening
    {
        $record = $proposal->record;
        $field = $this->fields->single ?? $proposal->type->fields[$this->fields->names[0] ?? ''] ?? null;
        if ($field === null) {
            $title = $proposal->type->fields[$proposal->type->title];
            $its = $record->value($title->name);

            return $proposal->turned() ?? new Opening(
                OpeningKind::Changed,
                $proposal->now,
                [$title->name => $proposal->another($title, $its)],
                [$title->name => $its],
            );
        }
        $set = $proposal->set;
        if ($this->fields->to !== null) {
            $set[$field->name] = $this->fields->to;
        } elseif (! array_key_exists($field->name, $set)) {
            $set[$field->name] = $record->value($field->name);
        }
        $was = match (true) {
            $this->fields->from !== null => [$field->name => $this->fields->from],
            $set[$field->name] === $record->value($field->name) => [$field->name => $proposal->another($field, $set[$field->name])],
            default => [],
        };

        return new Opening(OpeningKind::Changed, $proposal->now, $was, $set);
    }
}
