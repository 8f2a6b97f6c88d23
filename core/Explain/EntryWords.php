<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\House\Names;
use VividLedger\Record\Display;
use VividLedger\Rights\Role;
use VividLedger\Rights\RoleDifference;
use VividLedger\Rights\RoleFile;
use VividLedger\Schema\Schema;

/**
 * Makes words of what an entry keeps, when it is read: values by their labels, people and records by what they are called, moments
 * in a zone. The ledger in ink and a rehearsal on paper are read by the same words.
 */
final readonly class EntryWords
{
    public function __construct(
        private Schema $schema,
        private Names $names,
        private Display $display,
    ) {
    }

    /**
     * @param  list<FieldDifference>  $changes
     * @return list<array{field: string, label: string, before: string, after: string}>
     */
    public function changes(string $type, array $changes): array
    {
        $said = [];
        foreach ($changes as $change) {
            $field = $this->schema->type($type)?->field($change->field);
            if ($field !== null) {
                $said[] = [
                    'field' => $field->name, 'label' => $field->label, 'before' => $this->display->of($field, $change->before),
                    'after' => $this->display->of($field, $change->after),
                ];
            }
        }

        return $said;
    }

    /**
     * @param  array<array-key, mixed>  $data  as an entry keeps it
     * @return array<array-key, mixed> the same in words
     */
    public function data(array $data): array
    {
        $kept = new Kept($data);
        if ($kept->has('did')) {
            $data['did'] = array_map($this->outcome(...), $kept->rows('did'));
        }
        if (is_array($data['lines'] ?? null)) {
            $data['lines'] = array_map($this->line(...), $kept->rows('lines'));
        }
        foreach (['from', 'until', 'due', 'meant'] as $name) {
            if ($kept->text($name) !== '' && $kept->moment($name) !== null) {
                $data[$name] = $this->moment($kept, $name);
            }
        }
        if (is_array($data['due'] ?? null)) {
            $due = $kept->below('due');
            $data['due'] = [$due === null ? null : $this->moment($due, '0'), $due === null ? null : $this->moment($due, '1')];
        }
        if (is_array($data['happened'] ?? null)) {
            $data['happened'] = array_map(fn (Kept $event): array => array_replace($event->data, array_map(
                $this->person(...),
                array_intersect_key($event->data, ['person' => true, 'other' => true]),
            )), $kept->rows('happened'));
        }
        if (is_array($data['person'] ?? null)) {
            $data['person'] = array_map($this->person(...), array_values($data['person']));
        } elseif (array_key_exists('person', $data)) {
            $data['person'] = $this->person($data['person']);
        }
        if (is_int($data['other'] ?? null)) {
            $data['other'] = $this->person($data['other']);
        }

        if (is_array($data['turns'] ?? null)) {
            $data['turns'] = array_map($this->turn(...), $kept->rows('turns'));
        }
        if (is_array($data['role'] ?? null)) {
            $data['said'] = $this->ofRole($data['role'], $kept->text('title'));
        }

        return $data;
    }

    /** @return array<array-key, mixed> with people by their names */
    private function turn(Kept $turn): array
    {
        $isPerson = in_array($turn->text('what'), ['manager_id', 'deputy_id'], true);

        return $isPerson ? array_replace($turn->data, array_map($this->person(...), array_intersect_key(
            $turn->data,
            ['was' => true, 'is' => true],
        ))) : $turn->data;
    }

    /**
     * @param  array<array-key, mixed>  $files  what the role said before, null for a new one, and says since
     * @return list<string>
     */
    private function ofRole(array $files, string $label): array
    {
        $role = static fn (mixed $file): ?Role => is_array($file) ? RoleFile::kept('', $file) : null;

        return (new RoleDifference($this->schema))->said($role($files[0] ?? null), $role($files[1] ?? null) ?? new Role('', $label));
    }

    /** @return array<array-key, mixed> */
    private function line(Kept $line): array
    {
        return [
            'said' => $line->text('said'), 'due' => $this->moment($line, 'due'),
            ...(array_key_exists('to', $line->data) ? ['to' => $this->moment($line, 'to')] : []),
        ];
    }

    /** @return array<array-key, mixed> */
    private function outcome(Kept $did): array
    {
        $words = $did->data;
        unset($words['type'], $words['record']);
        if ($did->has('type') && $did->text('kind') === 'set') {
            $field = $this->schema->type($did->text('type'))?->field($did->text('field'));
            $words['label'] = $field->label ?? $did->text('field');
            $words['before'] = $field === null ? $did->text('before') : $this->display->of($field, $did->value('before'));
            $words['after'] = $field === null ? $did->text('after') : $this->display->of($field, $did->value('after'));
        }
        foreach (['on', 'record'] as $name) {
            $about = $did->below($name);
            if ($about !== null) {
                $words[$name] = $this->called($about);
            }
        }
        foreach (['due', 'until'] as $name) {
            if ($did->has($name)) {
                $words[$name] = $this->moment($did, $name);
            }
        }
        if (array_key_exists('person', $did->data)) {
            $words['person'] = $this->person($did->data['person']);
        }
        if (is_array($did->data['asked'] ?? null)) {
            $words['asked'] = array_map($this->person(...), array_values($did->data['asked']));
        }

        return $words;
    }

    /** What a record is called: "Customer C-0012, Brine & Barrow Hotel", by the title it had then. */
    private function called(Kept $about): string
    {
        $type = $this->schema->type($about->text('type'));
        $number = $type?->numberOf($about->number('id')) ?? '';
        $title = $about->text('title') === '' ? (string) $this->names->title(
            $about->text('type'),
            $about->number('id'),
        ) : $about->text('title');

        return trim(($type->label ?? '').' '.$number).($title === '' || $title === $number ? '' : ", {$title}");
    }

    private function moment(Kept $kept, string $name): ?string
    {
        $moment = $kept->moment($name);
        $text = $kept->text($name);

        return $moment === null ? ($text === '' ? null : $text) : $this->display->moment($moment);
    }

    /** Somebody is kept by their number; a name that is kept as text stays one. */
    private function person(mixed $person): ?string
    {
        return is_int($person) ? $this->names->person($person)->name ?? "person {$person}" : (is_string($person) ? $person : null);
    }
}
