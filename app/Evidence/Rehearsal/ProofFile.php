<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use App\Models\Rules\Proof;
use App\Store\DomainError;
use App\Store\People\PeopleStore;
use App\Store\RefusedFor;
use App\Store\Types\SchemaStore;
use VividLedger\Rule\Rule;
use VividLedger\Schema\FieldType;
use VividLedger\Words\Words;

/** Proofs as they travel with a rule file. They bring their own records along; people go by their handles. */
final readonly class ProofFile
{
    public function __construct(
        private SchemaStore $schemas,
        private PeopleStore $people,
        private Proofs $proofs,
    ) {
    }

    /** @return list<array<string, mixed>> */
    public function write(int $ruleId, string $type): array
    {
        $written = [];
        $handle = fn (mixed $id): mixed => is_int($id) ? ($this->people->person($id)->handle ?? null) : $id;
        foreach (Proof::query()->where('rule_id', $ruleId)->orderBy('id')->get() as $proof) {
            $fact = fn (array $fact): array => ['values' => (object) $this->values($fact['values'], $fact['type'], $handle)] + $fact;
            $written[] = [
                'name' => $proof->name, 'script' => $this->script($proof->script, $type, $handle),
                'facts' => array_map($fact, $proof->facts), 'expected' => $proof->expected,
            ];
        }

        return $written;
    }

    /**
     * @param  list<array<string, mixed>>  $proofs
     *
     * @throws DomainError when they name people whom nobody knows here
     */
    public function read(array $proofs, int $ruleId, Rule $rule, int $by): void
    {
        $unknown = [];
        $id = function (mixed $handle) use (&$unknown): mixed {
            if (! is_string($handle)) {
                return $handle;
            }
            $person = $this->people->personByHandle($handle);
            if ($person === null) {
                $unknown[$handle] = true;
            }

            return $person?->id;
        };
        foreach ($proofs as $proof) {
            $script = $this->script($proof['script'], $rule->on, $id);
            $facts = array_map(
                fn (array $fact): array => ['values' => $this->values($fact['values'] ?? [], (string) ($fact['type'] ?? ''), $id)] + $fact,
                $proof['facts'] ?? [],
            );
            $this->proofs->insert(
                $ruleId,
                $rule,
                mb_substr((string) $proof['name'], 0, 120),
                ['actor' => $by] + $script,
                array_values($facts),
                $by,
                array_values($proof['expected']),
            );
        }
        if ($unknown !== []) {
            throw new DomainError(
                'unknown_person',
                Words::say(
                    'The proofs of this file name people whom nobody knows here: {unknown}. Nothing was imported.',
                    unknown: implode(', ', array_keys($unknown)),
                ),
                RefusedFor::Invalid,
            );
        }
    }

    /**
     * @param  array<string, mixed>  $script
     * @param  \Closure(mixed): mixed  $turn
     * @return array<string, mixed>
     */
    private function script(array $script, string $type, \Closure $turn): array
    {
        $script['record']['values'] = (object) $this->values($script['record']['values'] ?? [], $type, $turn);
        foreach (['was', 'set'] as $part) {
            $about = $part === 'set' ? ($script['opening']['related']['type'] ?? $type) : $type;
            $script['opening'][$part] = (object) $this->values($script['opening'][$part] ?? [], $about, $turn);
        }
        foreach ($script['whatIfs'] ?? [] as $place => $whatIf) {
            if (isset($whatIf['person'])) {
                $script['whatIfs'][$place]['person'] = $turn($whatIf['person']);
            }
            if (isset($whatIf['set'])) {
                $script['whatIfs'][$place]['set'] = (object) $this->values($whatIf['set'], $type, $turn);
            }
        }
        unset($script['actor']);

        return $script;
    }

    /**
     * @param  array<string, mixed>  $values
     * @param  \Closure(mixed): mixed  $turn
     * @return array<string, mixed>
     */
    private function values(array $values, string $type, \Closure $turn): array
    {
        foreach ($this->schemas->schema()->type($type)->fields ?? [] as $name => $field) {
            if ($field->type === FieldType::Person && isset($values[$name])) {
                $values[$name] = $turn($values[$name]);
            }
        }

        return $values;
    }
}
