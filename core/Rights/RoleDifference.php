<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\Schema\Schema;
use VividLedger\Words\Words;

/** What another wording of a role changes, in sentences: read by whoever is about to, and in the ledger afterwards. */
final readonly class RoleDifference
{
    public function __construct(private Schema $schema)
    {
    }

    /**
     * @param  ?Role  $before  null for a role that is new
     * @return list<string>
     */
    public function said(?Role $before, Role $after): array
    {
        $before ??= new Role($after->name, $after->label);
        $said = $before->label === $after->label ? [] : [Words::say(
            'Called “{after}” instead of “{before}”.',
            after: $after->label,
            before: $before->label,
        )];
        foreach (Duty::cases() as $duty) {
            if ($before->has($duty) !== $after->has($duty)) {
                $said[] = ($after->has($duty) ? Words::say('May now: ') : Words::say('May no longer: ')).Words::within($duty->label()).'.';
            }
        }
        foreach (array_keys($before->reaches + $after->reaches) as $type) {
            foreach (Act::cases() as $act) {
                [$was, $is] = [$before->reach($act, $type), $after->reach($act, $type)];
                if ($was !== $is) {
                    $said[] = Words::say(
                        '{plural}: {act} – {is} instead of {was}.',
                        plural: $this->plural($type),
                        act: $act->label(),
                        is: $is->label(),
                        was: $was->label(),
                    );
                }
            }
        }
        foreach (array_keys($before->fields + $after->fields) as $type) {
            foreach (array_keys(($before->fields[$type] ?? []) + ($after->fields[$type] ?? [])) as $field) {
                [$was, $is] = [$before->access($type, (string) $field), $after->access($type, (string) $field)];
                if ($was !== $is) {
                    $label = $this->schema->type($type)?->field((string) $field)->label ?? $field;
                    $said[] = Words::say(
                        '{plural}, {label}: {is} instead of {was}.',
                        plural: $this->plural($type),
                        label: $label,
                        is: $is->label(),
                        was: $was->label(),
                    );
                }
            }
        }

        return $said;
    }

    private function plural(string $type): string
    {
        return $type === Role::EVERY_OTHER ? Words::say('All other records') : $this->schema->type($type)->plural ?? $type;
    }
}
