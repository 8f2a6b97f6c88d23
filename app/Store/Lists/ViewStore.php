<?php

declare(strict_types=1);

namespace App\Store\Lists;

use App\Models\Lists\SavedView;
use App\Models\People\Person;
use App\Models\Shared;
use App\Store\DomainError;
use App\Store\RefusedFor;
use VividLedger\Rights\Duty;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Views of lists that people keep. Whoever made one changes it; one for everybody is for whoever keeps house. */
final readonly class ViewStore
{
    public const MOST = 100;

    /**
     * @param  array<array-key, mixed>  $definition  read and found good
     *
     * @throws DomainError
     */
    public function add(RecordType $type, Person $by, string $name, Shared $shared, array $definition): SavedView
    {
        self::mayShare($by, $shared);
        if (SavedView::query()->where('record_type', $type->name)->where('owner_id', $by->id)->count() >= self::MOST) {
            throw new DomainError(
                'too_many',
                Words::say('You have {most} views here already. Remove one first.', most: self::MOST),
                RefusedFor::Conflict,
            );
        }

        return SavedView::query()->create([
            'record_type' => $type->name, 'name' => $name, 'owner_id' => $by->id, 'shared' => $shared, 'definition' => $definition,
            'team' => $shared === Shared::Team ? $by->team : null, 'version' => 1,
        ]);
    }

    /**
     * @param  array<array-key, mixed>  $definition  read and found good
     *
     * @throws DomainError
     */
    public function change(int $id, int $version, Person $by, string $name, Shared $shared, array $definition): SavedView
    {
        $view = $this->own($id, $by);
        self::mayShare($by, $shared);
        // Of two who change it at once only one has the version it was.
        $changed = SavedView::query()->whereKey($id)->where('version', $version)->update([
            'name' => $name, 'shared' => $shared, 'team' => $shared === Shared::Team ? $view->owner->team : null,
            'definition' => json_encode($definition, JSON_THROW_ON_ERROR), 'version' => $version + 1,
        ]);
        if ($changed === 0) {
            throw new DomainError('stale_version', Words::say('Somebody has changed this view since. Look at it again.'),
                RefusedFor::Conflict);
        }

        return $view->refresh();
    }

    /** @throws DomainError */
    public function remove(int $id, Person $by): void
    {
        $this->own($id, $by)->delete();
    }

    /** @throws DomainError when there is none for them, or it is somebody else's */
    private function own(int $id, Person $by): SavedView
    {
        $view = SavedView::query()->for($by)->find($id)
            ?? throw DomainError::missing(Words::say('There is no such view.'));
        if ($view->owner_id !== $by->id && ! $by->may(Duty::KeepHouse)) {
            throw new DomainError(
                'not_allowed',
                Words::say('This view is {owner}’s. Keep it as one of your own.', owner: $view->owner->name),
                RefusedFor::NotAllowed,
            );
        }

        return $view;
    }

    private static function mayShare(Person $by, Shared $shared): void
    {
        if ($shared === Shared::Everybody && ! $by->may(Duty::KeepHouse)) {
            throw new DomainError('not_allowed', Words::say('Views for everybody are made by whoever keeps house.'),
                RefusedFor::NotAllowed);
        }
        if ($shared === Shared::Team && $by->team === '') {
            throw new DomainError('no_team', Words::say('You are in no team to share it with.'), RefusedFor::Conflict);
        }
    }
}
