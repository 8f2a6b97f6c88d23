<?php

declare(strict_types=1);

namespace App\Store\Library;

use App\Models\Library\StoredRoute;
use App\Models\Rules\PublishedPage;
use App\Models\SignOffs\StoredSignOff;
use App\Store\HouseClock;
use App\Store\Records\PaperFacts;
use App\Store\Setup\Company;
use App\Store\SignOffs\SignOffRoutes;
use App\Store\SignOffs\SignOffService;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Facts\View;
use VividLedger\SignOff\Clerk;
use VividLedger\SignOff\KeptRoute;
use VividLedger\SignOff\Seat;
use VividLedger\SignOff\SeatState;
use VividLedger\SignOff\SignOff;
use VividLedger\SignOff\SignOffStatus;

/** Sign-offs that run on along a route as it was before it was changed, and what would come of moving them to what it is now. */
final readonly class RouteMoves
{
    private const MOST = 1000;

    public function __construct(
        private SignOffRoutes $routes,
        private SignOffService $desk,
        private SchemaStore $schemas,
        private HouseClock $clock,
        private Company $company,
    ) {
    }

    /** @return array<int, array{StoredSignOff, list<mixed>}> each with the steps it would go on along, by id */
    public function running(StoredRoute $route): array
    {
        $all = $this->all($this->waiting()->where('record_type', $route->record_type)->with('seats'));

        return $all[$route->id] ?? [];
    }

    /** @return array<int, int> how many there are, by route */
    public function counts(): array
    {
        return array_map(count(...), $this->all($this->waiting()));
    }

    /**
     * Whom each would ask then; nothing is changed.
     *
     * @param  array<int, array{StoredSignOff, list<mixed>}>  $running
     * @return array<int, list<int>> ids of people, by sign-off; none where it would have ended
     */
    public function asked(array $running): array
    {
        $facts = new PaperFacts($this->schemas, $this->clock->now(), $this->company->zone());
        $records = [];
        foreach ($running as [$kept]) {
            $records[$kept->record_type][] = $kept->record_id;
        }
        foreach ($records as $type => $ids) {
            $facts->rememberRecords((string) $type, $ids);
        }

        return array_map(function (array $one) use ($facts): array {
            [$kept, $steps] = $one;
            $record = $facts->record($kept->record_type, $kept->record_id);
            $route = $this->routes->written($kept->record_type, $steps);

            return $record === null || $route === null ? [] : self::whoWaits(
                (new Clerk($route, new View($record, $facts), $this->company->zone()))->moveHere($kept->signOff())->signOff,
            );
        }, $running);
    }

    /**
     * @param  list<int>  $ids
     * @return int how many were moved
     */
    public function move(StoredRoute $route, array $ids, int $person): int
    {
        $moved = 0;
        foreach (array_intersect_key($this->running($route), array_fill_keys($ids, true)) as $id => [, $steps]) {
            $this->desk->reroute($id, $steps, $person);
            $moved++;
        }

        return $moved;
    }

    /** @return list<int> ids of those who are asked */
    public static function whoWaits(SignOff $signOff): array
    {
        return array_map(static fn (Seat $seat): int => $seat->person, $signOff->ofStep(SeatState::Waiting));
    }

    /** @return Builder<StoredSignOff> those whose page only names their route */
    private function waiting(): Builder
    {
        return StoredSignOff::query()->where('status', SignOffStatus::Waiting)->whereNotNull('route')->orderBy('id')->limit(self::MOST);
    }

    /**
     * @param  Builder<StoredSignOff>  $waiting
     * @return array<int, array<int, array{StoredSignOff, list<mixed>}>> by route, then by sign-off
     */
    private function all(Builder $waiting): array
    {
        $rows = $waiting->get();
        $pages = array_values($rows->map(static fn (StoredSignOff $kept): array => [$kept->rule_id, $kept->page])->unique()->all());
        $files = $pages === [] ? [] : PublishedPage::filesOf($pages);
        $routes = StoredRoute::query()->get()->keyBy(static fn (StoredRoute $route): string => "{$route->record_type} {$route->name}");
        $all = [];
        foreach ($rows as $kept) {
            $steps = [];
            $named = [];
            foreach ($files[$kept->rule_id][$kept->page]['lines'][$kept->place]['steps'] ?? [] as $step) {
                $route = isset($step[KeptRoute::KEY]) ? $routes->get("{$kept->record_type} {$step[KeptRoute::KEY]}") : null;
                array_push($steps, ...($route === null ? [$step] : $route->steps));
                array_push($named, ...($route === null ? [] : [$route->id]));
            }
            foreach (json_encode($steps) === json_encode($kept->route) ? [] : $named as $route) {
                $all[$route][$kept->id] = [$kept, $steps];
            }
        }

        return $all;
    }
}
