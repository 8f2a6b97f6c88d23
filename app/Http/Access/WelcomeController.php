<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Inbound\DoorResource;
use App\Http\Setup\CompanyToOpenInput;
use App\Http\Setup\StarterSetResource;
use App\Models\Outbound\LinkKind;
use App\Models\People\Person;
use App\Store\Access\Passwords;
use App\Store\Access\PersonLinks;
use App\Store\DomainError;
use App\Store\People\Onboarding;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Setup\NewCompany;
use App\Store\Setup\StarterSets;
use App\Work\People\SendLink;
use Illuminate\Database\Connection;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\RateLimiter;
use OpenApi\Attributes as OA;
use VividLedger\Words\Words;

/** The doors for whoever is not signed in: to open a company, to come in for the first time, to choose another password. */
final class WelcomeController extends Controller
{
    /** At most so many letters to one account, within so many seconds. */
    private const LETTERS = 3;

    private const WITHIN = 900;

    public function __construct(private readonly SessionService $door, private readonly Onboarding $joining)
    {
    }

    #[OA\Get(path: '/api/door', operationId: 'door', description: 'Whether there is a company here.', tags: ['session'],
        responses: [new Ok(DoorResource::class)])]
    public function door(): DoorResource
    {
        return new DoorResource(NewCompany::isOpen());
    }

    #[OA\Get(path: '/api/welcome/{token}', operationId: 'welcome', description: 'What a link lets somebody do.', tags: ['session'],
        responses: [new Ok(WelcomeResource::class)])]
    public function show(string $token, Company $company): WelcomeResource
    {
        $link = PersonLinks::open($token);
        $begins = $link->kind === LinkKind::Begin;
        $sets = $begins ? StarterSets::all() : [];

        return new WelcomeResource(
            kind: $link->kind->value, name: $link->person->name ?? '', email: $link->person->email ?? '',
            company: $begins ? '' : $company->name(),
            sets: array_map(
                static fn (string $name, array $set): StarterSetResource => new StarterSetResource($name, $set['label'], $set['says']),
                array_keys($sets),
                $sets,
            ),
            timeZones: $begins ? \DateTimeZone::listIdentifiers() : [], least: Passwords::LEAST,
        );
    }

    #[OA\Post(path: '/api/welcome/{token}', operationId: 'comeIn', description: 'Chooses a password by a link, which is used up by it, '
        .'and signs in unless a second factor is asked for.', tags: ['session'],
        responses: [new Ok(Me::class)])]
    public function store(string $token, PasswordInput $request, Connection $db): Me|Response
    {
        SessionService::mustHaveSession($request);
        $person = $this->joining->choose($token, $request->validated()['password']);
        SignIns::endAll($db, $person, null);

        return $person->second_factor === null ? $this->door->letIn($request, $person, 'link') : response()->noContent();
    }

    #[OA\Post(path: '/api/welcome/{token}/company', operationId: 'openCompany', description: 'Opens the company, with its first '
        .'administrator, who is signed in.', tags: ['session'], responses: [new Ok(Me::class)])]
    public function company(string $token, CompanyToOpenInput $request, NewCompany $company): Me
    {
        SessionService::mustHaveSession($request);
        $given = $request->given();
        $link = PersonLinks::open($token);
        if ($link->kind !== LinkKind::Begin) {
            throw new DomainError('not_allowed', Words::say('This link opens no company.'), RefusedFor::NotAllowed);
        }
        Passwords::check($given['password'], [$given['name'], $given['email'], $given['company']]);
        $person = $company->open($given);
        $this->joining->change($person, $given['password']);
        PersonLinks::shut(null);

        return $this->door->letIn($request, $person, 'link');
    }

    #[OA\Post(path: '/api/password/forgotten', operationId: 'forgotPassword', description: 'Sends a link for another password to an '
        .'address, if it is somebody’s. The answer is the same if it is not.', tags: ['session'], responses: [new Ok])]
    public function forgotten(ForgottenInput $request): Response
    {
        $person = Person::query()->where('email', $request->validated()['email'])->where('active', true)->first();
        // Nobody’s letter box is filled by somebody who only knows the address.
        if ($person !== null && RateLimiter::attempt("forgotten:{$person->id}", self::LETTERS, static fn (): bool => true, self::WITHIN)) {
            SendLink::dispatch($person->id, $person->joined_at === null ? LinkKind::Invite : LinkKind::Reset);
        }

        return response()->noContent();
    }
}
