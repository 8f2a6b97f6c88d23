<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** One save of one record. */
final class Change
{
    /** @var ?list<string> */
    private ?array $fields = null;

    /**
     * @param  ?Record  $before  null when the record was created
     * @param  ?Record  $after  null when the record was deleted
     * @param  ?int  $actor  id of the person; null when nobody in person made it
     */
    public function __construct(
        public readonly ?Record $before,
        public readonly ?Record $after,
        public readonly ?int $actor,
        public readonly \DateTimeImmutable $at,
        public readonly CauseKind $cause = CauseKind::Person,
    ) {
        if ($before === null && $after === null) {
            throw new \LogicException('A change has a record before it, after it, or both.');
        }
    }

    /** The record the change is about: as it is now, or as it last was. */
    public function record(): Record
    {
        return $this->after ?? $this->before ?? throw new \LogicException('A change has a record.');
    }

    /**
     * Names of the fields that differ, the application's own stamps left out.
     *
     * @return list<string> on creation those that are filled in
     */
    public function fields(): array
    {
        return $this->fields ??= $this->differing();
    }

    /** @return list<string> */
    private function differing(): array
    {
        $before = $this->before === null ? [] : $this->before->values;
        $differing = [];
        foreach ($this->after === null ? [] : $this->after->values as $name => $value) {
            if ($value !== ($before[$name] ?? null) && $name !== 'updated_at' && $name !== 'updated_by' && $name !== 'created_at' && $name !== 'created_by') {
                $differing[] = $name;
            }
        }

        return $differing;
    }
}
