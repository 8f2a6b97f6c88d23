<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\PublishedPage;
use App\Models\StoredRoute;
use App\Models\StoredSignOff;
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
        private SignOffDesk $desk,
        private SchemaStore $schemas,
        private HouseClock $clock,
        private Company $company,
    ) {
    }

    /** @return array<int, array{StoredSignOff, list<mixed>}> each with the steps it would go on along, by id */
    public function running(StoredRoute $route): array
    {
        $running = [];
        $waiting = StoredSignOff::query()->with('seats.person')->where('status', SignOffStatus::Waiting)
            ->where('record_type', $route->record_type)->whereNotNull('route')->orderBy('id')->limit(self::MOST)->get();
        foreach ($waiting as $kept) {
            $steps = $this->steps($kept, $route);
            if ($steps !== null && json_encode($steps) !== json_encode($kept->route)) {
                $running[$kept->id] = [$kept, $steps];
            }
        }

        return $running;
    }

    /**
     * Whom it would ask then; nothing is changed.
     *
     * @param  list<mixed>  $steps
     * @return list<int> ids of people; none when it would have ended
     */
    public function asked(StoredSignOff $kept, array $steps): array
    {
        $facts = new StoredFacts($this->schemas, $this->clock->now(), $this->company->zone());
        $record = $facts->record($kept->record_type, $kept->record_id);
        $route = $this->routes->written($kept->record_type, $steps);

        return $record === null || $route === null ? []
            : self::waiting((new Clerk($route, new View($record, $facts), $this->company->zone()))->moveHere($kept->signOff())->signOff);
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
    public static function waiting(SignOff $signOff): array
    {
        return array_map(static fn (Seat $seat): int => $seat->person, $signOff->ofStep(SeatState::Waiting));
    }

    /** @return ?list<mixed> the steps of the line with those of the route as it is now; null when the line does not name it */
    private function steps(StoredSignOff $kept, StoredRoute $route): ?array
    {
        $written = PublishedPage::fileOf($kept->rule_id, $kept->page)['lines'][$kept->place]['steps'] ?? [];
        $steps = [];
        $isNamed = false;
        foreach ($written as $step) {
            $isOne = ($step[KeptRoute::KEY] ?? null) === $route->name;
            $isNamed = $isNamed || $isOne;
            $other = $isOne || ! isset($step[KeptRoute::KEY]) ? null : StoredRoute::query()->where('record_type', $kept->record_type)
                ->firstWhere('name', $step[KeptRoute::KEY]);
            array_push($steps, ...($isOne ? $route->steps : ($other === null ? [$step] : $other->steps)));
        }

        return $isNamed ? $steps : null;
    }
}
