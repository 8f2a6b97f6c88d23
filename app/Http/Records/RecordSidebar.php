<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Timing\RunnableResource;
use App\Models\People\Person;
use App\Models\Records\Attachment;
use App\Models\Records\Follower;
use App\Models\Rules\GuardKey;
use App\Models\Rules\RuleWatch;
use App\Models\Rules\StoredRule;
use App\Store\Records\PaperFacts;
use App\Store\Rules\GuardsOfRecord;
use App\Store\Rules\StoredRuleBook;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Record\Value;
use VividLedger\Schema\RecordType;

/** Reads what stands beside the fields of a record. */
final readonly class RecordSidebar
{
    public function __construct(private StoredRuleBook $rules, private PaperFacts $facts)
    {
    }

    public function of(RecordType $type, int $id): BesideResource
    {
        $files = Attachment::query()->about($type->name, $id)->with('author')->latest('id')->get();
        $following = Follower::query()->about($type->name, $id)->select('person_id');
        $followers = Person::query()->whereIn('id', $following)->orderBy('name')->get();

        return new BesideResource(
            array_values($files->map(static fn (Attachment $file): FileResource => new FileResource(
                id: $file->id, name: $file->name, mediaType: $file->media_type, bytes: $file->bytes, author: $file->author?->name,
                at: Value::instantText($file->at),
            ))->all()),
            array_values(
                $followers->map(static fn (Person $person): FollowerResource => new FollowerResource($person->id, $person->name))->all(),
            ),
            $this->guards($type, $id),
            $this->runnable($type),
        );
    }

    /** @return list<GuardResource> of the rules whose guard remembers, those that have been used */
    private function guards(RecordType $type, int $id): array
    {
        $used = GuardKey::query()->about($type->name, $id)->select('rule_id');
        $rules = StoredRule::query()->whereIn('id', $used)->orderBy('position')->get();
        $this->rules->remember(array_values($rules->map(StoredRule::pageKey(...))->all()));
        $record = $this->facts->record($type->name, $id);
        $held = new GuardsOfRecord;
        $guards = [];
        foreach ($rules as $stored) {
            $rule = $this->rules->page(...StoredRule::pageKey($stored));
            if ($rule === null || $record === null || ! $rule->guard->remembers()) {
                continue;
            }
            $state = $held->guardState($rule->id, $type->name, $id);
            $isUsed = static fn (string $key): bool => $held->guardHeld($rule->id, $type->name, $id, $state->epoch, $key);
            $guards[] = new GuardResource(
                rule: $rule->id, name: $stored->name, fires: $rule->guard->wording(), count: $state->count,
                lastFired: $state->last === null ? null
                : Value::instantText($state->last),
                holds: $rule->guard->holdsBack($state, $record, $this->facts->now(), $isUsed),
            );
        }

        return $guards;
    }

    /** @return list<RunnableResource> */
    private function runnable(RecordType $type): array
    {
        $rules = StoredRule::query()->inForce()->where('record_type', $type->name)->orderBy('position')
            ->whereHas('watches', static fn (Builder $watches): Builder => $watches->where('watch', RuleWatch::BY_HAND))->get();

        return array_values(
            $rules->map(static fn (StoredRule $rule): RunnableResource => new RunnableResource($rule->id, $rule->name, ''))->all(),
        );
    }
}
