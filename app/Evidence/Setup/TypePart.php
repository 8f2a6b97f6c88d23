<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Models\Types\RecordTypeDefinition;
use App\Store\Types\FieldGiven;
use App\Store\Types\TypeCarrier;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\OnDelete;
use VividLedger\Words\Words;

/** Record types with their fields. Fields that are here and not in the file stay. */
final class TypePart implements SetupPart
{
    private const NAME = '^[a-z][a-z0-9_]{0,39}$';

    public function __construct(private readonly TypeCarrier $carrier)
    {
    }

    public static function folder(): string
    {
        return 'types';
    }

    public static function isInOrder(): bool
    {
        return true;
    }

    public static function schema(): array
    {
        $words = ['type' => 'string', 'minLength' => 1, 'maxLength' => 60];
        $choice = ['type' => 'object', 'required' => ['label'], 'additionalProperties' => false, 'properties' => [
            'label' => $words, 'tone' => ['enum' => FieldGiven::TONES], 'closes' => ['type' => 'boolean'],
            'retired' => ['type' => 'boolean'],
        ]];
        $field = ['type' => 'object', 'required' => ['label', 'type'], 'additionalProperties' => false, 'properties' => [
            'label' => $words, 'type' => ['enum' => array_column(FieldType::cases(), 'value')], 'required' => ['type' => 'boolean'],
            'help' => ['type' => 'string', 'maxLength' => 300], 'target' => ['type' => 'string'],
            'scale' => ['type' => 'integer', 'minimum' => 0, 'maximum' => 6], 'currency' => ['type' => 'string', 'pattern' => '^[A-Z]{3}$'],
            'max_length' => ['type' => 'integer', 'minimum' => 1, 'maximum' => 10_000], 'min' => ['type' => ['string', 'number']],
            'max' => ['type' => ['string', 'number']], 'formula' => ['type' => 'string'],
            'section' => ['type' => 'string', 'maxLength' => 40], 'default' => ['type' => ['string', 'boolean']],
            'unique' => ['type' => 'boolean'],
            'required_at' => ['type' => 'array', 'items' => ['type' => 'string']], 'numbering' => ['type' => 'string', 'maxLength' => 60],
            'on_delete' => ['enum' => array_column(OnDelete::cases(), 'value')], 'retired' => ['type' => 'boolean'],
            'choices' => ['type' => 'object', 'propertyNames' => ['pattern' => '^[a-z][a-z0-9_]{0,63}$'],
                'additionalProperties' => $choice],
        ]];

        return ['required' => ['name', 'label', 'plural', 'prefix', 'title', 'owner', 'fields'], 'properties' => [
            'name' => ['type' => 'string', 'pattern' => self::NAME], 'label' => $words, 'plural' => $words,
            'prefix' => ['type' => 'string', 'pattern' => '^[A-Z][A-Z0-9]{0,5}$'], 'title' => ['type' => 'string'],
            'owner' => ['type' => 'string'], 'columns' => ['type' => 'array', 'items' => ['type' => 'string']],
            'fields' => ['type' => 'object', 'propertyNames' => ['pattern' => self::NAME], 'additionalProperties' => $field],
        ]];
    }

    public static function key(array $document): string
    {
        return (string) $document['name'];
    }

    public function documents(): array
    {
        return array_values(RecordTypeDefinition::query()->orderBy('position')->get()->map(
            static fn (RecordTypeDefinition $row): array => ['name' => $row->name] + $row->definition,
        )->all());
    }

    public function difference(?array $here, array $there): array
    {
        if ($here === null) {
            return [Words::say(
                'With {count} fields: {fields}.',
                count: count($there['fields']),
                fields: implode(', ', array_column($there['fields'], 'label')),
            )];
        }
        $said = [];
        foreach (['label' => Words::say('one of them'), 'plural' => Words::say('several of them')] as $member => $what) {
            if ($here[$member] !== $there[$member]) {
                $said[] = Words::say(
                    'Called “{there}” instead of “{here}” ({what}).',
                    there: $there[$member],
                    here: $here[$member],
                    what: $what,
                );
            }
        }
        foreach ($there['fields'] as $name => $field) {
            $known = $here['fields'][$name] ?? null;
            if ($known === null) {
                $said[] = Words::say('New field {label}.', label: $field['label']);
            } elseif (! NamedPart::same($known, $field)) {
                $said[] = $known['label'] === $field['label']
                    ? Words::say(
                        '{label} says something else: {members}.',
                        label: $field['label'],
                        members: implode(', ', self::members($known, $field)),
                    )
                    : Words::say('{label} is called {name}.', label: $known['label'], name: $field['label']);
            }
        }
        $order = array_values(array_intersect(array_keys($there['fields']), array_keys($here['fields'])));
        if ($order !== array_values(array_intersect(array_keys($here['fields']), $order))) {
            $said[] = Words::say('The fields stand in another order.');
        }
        if (($here['columns'] ?? null) !== ($there['columns'] ?? null)) {
            $said[] = Words::say('Lists show other columns.');
        }

        return $said;
    }

    /**
     * @param  list<array<string, mixed>>  $documents
     * @return \Closure(): void takes away what was made
     */
    public function prepare(array $documents): \Closure
    {
        /** @var list<\Closure(): void> $made */
        $made = [];
        $back = static function () use (&$made): void {
            foreach (array_reverse($made) as $one) {
                $one();
            }
        };
        try {
            foreach ($documents as $document) {
                $made[] = $this->carrier->prepare((string) $document['name'], array_diff_key($document, ['name' => true]));
            }
        } catch (\Throwable $thrown) {
            $back();
            throw $thrown;
        }

        return $back;
    }

    public function bring(array $document, Bringing $how): void
    {
        $this->carrier->carry((string) $document['name'], array_diff_key($document, ['name' => true]), $how->by);
    }

    /** @param  array<string, mixed>  $document */
    public function settle(array $document): void
    {
        $this->carrier->mustLeadSomewhere((string) $document['name']);
    }

    /**
     * @param  array<string, mixed>  $known
     * @param  array<string, mixed>  $field
     * @return list<string> names of what differs
     */
    private static function members(array $known, array $field): array
    {
        return array_values(array_filter(
            array_keys($known + $field),
            static fn (string $member): bool => ! NamedPart::same($known[$member] ?? null, $field[$member] ?? null),
        ));
    }
}
