<?php

declare(strict_types=1);

namespace App\Http\People;

use App\Http\Access\PasswordConfirmation;
use App\Http\Access\PasswordInput;
use App\Http\Access\SignIns;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Outbound\LinkKind;
use App\Models\People\Absence;
use App\Models\People\AbsenceState;
use App\Models\People\Person;
use App\Store\Access\AccessEntries;
use App\Store\Access\SecondFactors;
use App\Store\DomainError;
use App\Store\People\Onboarding;
use App\Store\People\PeopleFile;
use App\Store\People\PeopleRepository;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use App\Work\People\SendLink;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Rights\Duty;
use VividLedger\Words\Words;

/** People, with what they may sign off and who stands in for them. */
final class PeopleController extends Controller
{
    /** Members that are kept as they are given, and their columns. */
    private const PLAIN = [
        'limit' => 'sign_off_limit', 'limits' => 'sign_off_limits', 'active' => 'active', 'name' => 'name', 'email' => 'email',
        'role' => 'role', 'team' => 'team', 'timeZone' => 'time_zone', 'calendarId' => 'calendar_id',
    ];

    public function __construct(private readonly PeopleRepository $keeper)
    {
    }

    #[OA\Get(
        path: '/api/people',
        operationId: 'people',
        description: 'Everybody, those who have left included.',
        tags: ['company'],
        responses: [new Ok(PersonResource::class, list: true)],
    )]
    public function index(): JsonResponse
    {
        return new JsonResponse($this->listed(null));
    }

    #[OA\Post(
        path: '/api/people',
        operationId: 'invitePerson',
        description: 'Invites somebody: a letter brings them a link by which they choose their password.',
        tags: ['company'],
        responses: [new Ok(PersonResource::class, status: 201)],
    )]
    public function store(InviteInput $request, Onboarding $joining, Company $company): JsonResponse
    {
        $given = $request->validated();
        $manager = $given['managerId'] ?? null;
        $person = $joining->invite([
            'name' => trim($given['name']), 'email' => trim($given['email']), 'role' => $given['role'],
            'team' => trim($given['team'] ?? ''), 'timeZone' => $given['timeZone'] ?? $company->zone()->getName(),
            'managerId' => $manager === null ? null : $this->personGiven($manager, '/managerId'),
        ], $this->person($request)->id);
        SendLink::dispatch($person->id, LinkKind::Invite);

        return new JsonResponse($this->listed($person->id)[0], 201);
    }

    #[OA\Post(
        path: '/api/people/list/read',
        operationId: 'readPeople',
        description: 'Reads a list of people (CSV), and says who would be invited and what is wrong. Nothing changes.',
        tags: ['company'],
        responses: [new Ok(PeopleRead::class)],
    )]
    public function readList(PeopleListInput $request, PeopleFile $file): PeopleRead
    {
        $read = $file->read((string) $request->validated()['text']);

        return new PeopleRead(
            array_map(static fn (array $one): PersonRead => new PersonRead(
                $one['name'] ?? '', $one['email'] ?? '', $one['role'] ?? '', $one['team'] ?? '', $one['manager'] ?? '',
            ), $read['people']),
            array_column($read['problems'], 'message'),
        );
    }

    #[OA\Post(
        path: '/api/people/list',
        operationId: 'invitePeople',
        description: 'Invites everybody of a list (CSV), or nobody when something of it is wrong.',
        tags: ['company'],
        responses: [new Ok(PeopleRead::class, status: 201)],
    )]
    public function storeList(PeopleListInput $request, PeopleFile $file): JsonResponse
    {
        $text = (string) $request->validated()['text'];
        foreach ($file->invite($text, $this->person($request)->id) as $id) {
            SendLink::dispatch($id, LinkKind::Invite);
        }

        return new JsonResponse(new PeopleRead([], []), 201);
    }

    #[OA\Post(
        path: '/api/people/{id}/invite',
        operationId: 'inviteAgain',
        description: 'Sends the invitation once more; the link sent before is void.',
        tags: ['company'],
        responses: [new Ok],
    )]
    public function again(int $id): Response
    {
        $person = Person::query()->find($id) ?? throw DomainError::missing(Words::say('There is no person {id}.', id: $id));
        if ($person->joined_at !== null || ! $person->active) {
            throw new DomainError(
                'wrong_state',
                Words::say('{person} has come in already, or is not with the company.', person: $person->name),
                RefusedFor::Conflict,
            );
        }
        SendLink::dispatch($person->id, LinkKind::Invite);

        return response()->noContent();
    }

    #[OA\Delete(
        path: '/api/people/{id}/second-factor',
        operationId: 'takeSecondFactorAway',
        description: 'For somebody who has lost their authenticator application and their recovery codes: their password is enough again. '
            .'One’s own password is asked for.',
        tags: ['company'],
        responses: [new Ok],
    )]
    public function withoutSecondFactor(int $id, PasswordInput $request, SecondFactors $factors): Response
    {
        $me = $this->person($request);
        PasswordConfirmation::mustBe($request, $me, $request->validated()['password']);
        $person = Person::query()->find($id) ?? throw DomainError::missing(Words::say('There is no person {id}.', id: $id));
        $factors->giveUp($person, $me->id);

        return response()->noContent();
    }

    #[OA\Delete(
        path: '/api/people/{id}/sign-ins',
        operationId: 'signOutSomebody',
        description: 'Signs somebody out wherever they are signed in, and ends their API tokens. Their password stays.',
        tags: ['company'],
        responses: [new Ok],
    )]
    public function signOut(int $id, Request $request, Connection $db, AccessEntries $entries): Response
    {
        $person = Person::query()->find($id) ?? throw DomainError::missing(Words::say('There is no person {id}.', id: $id));
        $db->transaction(function () use ($person, $request, $db, $entries): void {
            SignIns::endAll($db, $person, null);
            $person->tokens()->delete();
            $entries->write('signed_out', $this->person($request)->id, ['person' => $person->id]);
        });

        return response()->noContent();
    }

    #[OA\Patch(
        path: '/api/people/{id}',
        operationId: 'changePerson',
        description: 'Changes what somebody is called, their role, team and time zone, who manages them, who stands in for them, up to how '
            .'much they may sign off, and whether they are with the company. What is left out stays.',
        tags: ['company'],
        responses: [new Ok(PersonResource::class)],
    )]
    public function update(int $id, PersonInput $request, SchemaStore $schemas): PersonResource
    {
        $given = $request->validated();
        $set = [];
        foreach (['managerId' => 'manager_id', 'deputyId' => 'deputy_id'] as $name => $column) {
            if (array_key_exists($name, $given)) {
                $set[$column] = $given[$name] === null ? null : $this->personGiven($given[$name], "/{$name}");
            }
        }
        foreach (array_keys($given['limits'] ?? []) as $type) {
            if ($schemas->schema()->type((string) $type) === null) {
                $message = Words::say('There is no record type ‘{type}’.', type: $type);
                throw new DomainError('unknown_type', $message, RefusedFor::Invalid, [
                    ['at' => "/limits/{$type}", 'code' => 'unknown_type', 'message' => $message],
                ]);
            }
        }
        foreach (self::PLAIN as $name => $column) {
            if (array_key_exists($name, $given)) {
                $set[$column] = $given[$name];
            }
        }
        $this->keeper->change($id, $set, $this->person($request)->id);

        return $this->listed($id)[0];
    }

    #[OA\Post(
        path: '/api/people/{id}/absences',
        operationId: 'goAway',
        description: 'Enters an absence: one’s own, or anybody’s by an administrator. Meanwhile the deputy stands in. A date without a '
            .'time is the beginning of that day where the company is.',
        tags: ['company'],
        responses: [new Ok(PersonResource::class, status: 201)],
    )]
    public function away(int $id, AbsenceInput $request, Company $company): JsonResponse
    {
        $given = $request->validated();
        $this->mustBeOwn($id, $request);
        $deputy = ($given['deputyId'] ?? null) === null ? null : $this->personGiven($given['deputyId'], '/deputyId');
        $this->keeper->goesAway(
            $id,
            new \DateTimeImmutable($given['from'], $company->zone()),
            new \DateTimeImmutable($given['until'], $company->zone()),
            $deputy,
            $this->person($request)->id,
        );

        return new JsonResponse($this->listed($id)[0], 201);
    }

    #[OA\Delete(
        path: '/api/absences/{id}',
        operationId: 'comeBack',
        description: 'Takes an absence back, or ends it now.',
        tags: ['company'],
        responses: [new Ok],
    )]
    public function back(int $id, Request $request): Response
    {
        $absence = Absence::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such absence.'));
        $this->mustBeOwn($absence->person_id, $request);
        $this->keeper->comesBack($id, $this->person($request)->id);

        return response()->noContent();
    }

    private function mustBeOwn(int $id, Request $request): void
    {
        $me = $this->person($request);
        if ($me->id !== $id && ! $me->may(Duty::KeepHouse)) {
            throw new DomainError('not_allowed', Words::say('You enter your own absences.'), RefusedFor::NotAllowed);
        }
    }

    /** @return list<PersonResource> by name */
    private function listed(?int $only): array
    {
        $absences = Absence::query()->where('state', '!=', AbsenceState::Over)->orderBy('starts_at')->get()->groupBy('person_id');
        $people = Person::query()->when($only !== null, static fn (Builder $people): Builder => $people->whereKey($only))->orderBy('name');

        return array_values($people->get()->map(static fn (Person $person): PersonResource => new PersonResource(
            id: $person->id, handle: $person->handle, name: $person->name, email: $person->email, role: $person->role,
            team: $person->team, managerId: $person->manager_id, timeZone: $person->time_zone, calendarId: $person->calendar_id,
            active: $person->active, limit: $person->sign_off_limit, limits: $person->sign_off_limits ?? [],
            deputyId: $person
            ->deputy_id,
            away: $person->away, hasJoined: $person->joined_at !== null, hasSecondFactor: $person->second_factor !== null,
            absences: array_values(array_map(static fn (Absence $absence): AbsenceResource => new AbsenceResource(
                $absence->id, Value::instantText($absence->starts_at), Value::instantText($absence->ends_at), $absence->deputy_id,
            ), $absences->get($person->id)?->all() ?? [])),
        ))->all());
    }
}
