<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Record\Language;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Words\Words;

/** The contact in a field: a record with an e-mail address or a phone number, or such a field of the record itself. */
final readonly class ToContact implements Recipient
{
    private function __construct(private Path $path, private ?RecordType $contact)
    {
    }

    public static function kind(): string
    {
        return 'field';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('the {path}')->orSaid('its {path}')->slot('path', new ContactPath);
    }

    public static function read(Context $context, Node $node): ?self
    {
        $name = $node->child('path')->text() ?? '';
        $path = $context->schema->path($context->type, $name);
        $contact = $path?->field->target === null ? null : $context->schema->type($path->field->target);
        $direct = $path !== null && ($path->field->type === FieldType::Email || $path->field->type === FieldType::Phone);

        return $path !== null && ($direct || ($contact !== null && self::field($contact, FieldType::Email) !== null))
            ? new self($path, $contact)
            : $context->problem(
                $node->at,
                'unknown_field',
                Words::say('{type} has no contact ‘{name}’ that can be written to.', type: $context->type->label, name: $name),
            );
    }

    public static function offers(Context $context): array
    {
        $offers = [];
        foreach ($context->type->ownFields() as $field) {
            $target = $field->target === null ? null : $context->schema->type($field->target);
            if ($field->type === FieldType::Email || $field->type === FieldType::Phone
                || ($target !== null && self::field($target, FieldType::Email) !== null)) {
                $one = ['kind' => self::kind(), 'path' => $field->name];
                $offers[] = new Offer($context->said(self::shape(), $one), $one, 'Contacts');
            }
        }

        return $offers;
    }

    public function reach(ActionContext $performance, Channel $channel): Reached
    {
        $label = $this->path->label();
        $value = $performance->view()->value($this->path);
        if ($value === null) {
            return new Reached([], "{$label} is empty");
        }
        if ($channel === Channel::App) {
            return new Reached([], "{$label} is not somebody who works with the application");
        }
        if ($this->contact === null || ! is_int($value)) {
            $fits = $channel === Channel::Email ? $this->path->field->type === FieldType::Email
                : $this->path->field->type === FieldType::Phone;
            $record = $this->path->hops === [] ? $performance->record : $performance->view()->follow($this->path->hops);

            return $fits ? new Reached(
                [
                    new Address(
                        (string) $value,
                        (string) $value,
                        null,
                        $record === null ? null : [$record->type, $record->id],
                        self::language($record),
                    ),
                ],
                "{$label} {$value}",
            )
                : new Reached([], "{$label} takes no {$channel->label()}");
        }
        $record = $performance->facts->record($this->contact->name, $value);
        $name = $record?->value($this->contact->title);
        $called = is_string($name) ? $name : $this->contact->numberOf($value);
        $field = self::field($this->contact, $channel === Channel::Email ? FieldType::Email : FieldType::Phone);
        $address = $field === null ? null : $record?->value($field->name);

        return is_string($address)
            ? new Reached(
                [new Address($called, $address, null, [$this->contact->name, $value], self::language($record))],
                "{$label} {$called}",
            )
            : new Reached([], "{$label} {$called} has no ".($channel === Channel::Email ? 'e-mail address' : 'phone number'));
    }

    public static function field(RecordType $type, FieldType $of): ?Field
    {
        foreach ($type->fields as $field) {
            if ($field->type === $of) {
                return $field;
            }
        }

        return null;
    }

    /** A contact is written to in the language its record names. */
    private static function language(?Record $record): Language
    {
        $language = $record?->value('language');

        return Language::tryFrom(is_string($language) ? $language : '') ?? Language::English;
    }
}
