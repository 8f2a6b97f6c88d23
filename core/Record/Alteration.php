<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** What a change was, as far as it can be told later: the fields with their old and new values, by whom and when. */
final readonly class Alteration implements \JsonSerializable
{
    /**
     * @param  string  $type  of the record that was changed
     * @param  bool  $isNew  whether the record was made by it
     * @param  array<string, array{string|int|bool|null, string|int|bool|null}>  $fields  before and after, by name
     * @param  ?int  $actor  id of the person; null when nobody in person made it
     */
    public function __construct(
        public string $type,
        public int $id,
        public bool $isNew,
        public array $fields,
        public ?int $actor,
        public CauseKind $cause,
        public \DateTimeImmutable $at,
    ) {
    }

    public static function of(Change $change): self
    {
        $fields = [];
        foreach ($change->event === null ? $change->fields() : [] as $name) {
            $fields[$name] = [$change->before?->value($name), $change->after?->value($name)];
        }
        $record = $change->record();

        return new self(
            type: $record->type, id: $record->id, isNew: $change->before === null, fields: $fields, actor: $change->actor,
            cause: $change->cause, at: $change->at,
        );
    }

    /** The value a field had before, for the record that was changed; of any other record it is the value it has. */
    public function before(Record $record, string $field): string|int|bool|null
    {
        return $record->type === $this->type && $record->id === $this->id
            && isset($this->fields[$field]) ? $this->fields[$field][0] : $record->value($field);
    }

    /** @return array<string, mixed> */
    public function jsonSerialize(): array
    {
        return [
            'type' => $this->type, 'id' => $this->id, 'new' => $this->isNew, 'fields' => (object) $this->fields,
            'actor' => $this->actor, 'cause' => $this->cause->value, 'at' => Value::instantText($this->at),
        ];
    }

    /** Reads what jsonSerialize() gave, decoded; null when it is not that. */
    public static function read(mixed $data): ?self
    {
        if (! is_array($data) || ! is_string($data['type'] ?? null) || ! is_int($data['id'] ?? null)
            || ! is_string($data['at'] ?? null) || ! is_string($data['cause'] ?? null)) {
            return null;
        }
        $fields = [];
        foreach (is_array($data['fields'] ?? null) ? $data['fields'] : [] as $name => $pair) {
            [$before, $after] = is_array($pair) ? [$pair[0] ?? null, $pair[1] ?? null] : [null, null];
            $fields[(string) $name] = [
                is_scalar($before) && ! is_float($before) ? $before : null, is_scalar($after) && ! is_float($after) ? $after : null,
            ];
        }
        $actor = $data['actor'] ?? null;

        return new self(
            type: $data['type'], id: $data['id'], isNew: ($data['new'] ?? false) === true, fields: $fields,
            actor: is_int($actor) ? $actor : null, cause: CauseKind::from($data['cause']), at: new \DateTimeImmutable($data['at']),
        );
    }
}
