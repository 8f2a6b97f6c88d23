<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\People\PreferencesInput;
use App\Http\People\PreferencesResource;
use App\Http\Problems;
use App\Http\Setup\LanguageInput;
use App\Models\People\Person;
use App\Store\Access\SecondFactors;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Hash;
use OpenApi\Attributes as OA;
use VividLedger\Words\Words;

/** Signing in and out. */
final class SessionController extends Controller
{
    public function __construct(private readonly SessionService $door, private readonly SecondFactors $factors)
    {
    }

    #[
        OA\Get(
            path: '/api/session',
            operationId: 'me',
            description: 'Who is signed in, and what they may do.',
            tags: ['session'],
            responses: [new Ok(Me::class)],
        ),
    ]
    public function show(Request $request): Me
    {
        return $this->door->me($this->person($request));
    }

    #[
        OA\Post(
            path: '/api/session',
            operationId: 'signIn',
            description: 'Signs in with a session, from the application’s own pages. Whoever has a second factor gives its code as well, '
                .'or a recovery code.',
            tags: ['session'],
            responses: [new Ok(Me::class)],
        ),
    ]
    public function store(SignInInput $request): Me|JsonResponse
    {
        $given = $request->validated();
        SessionService::mustHaveSession($request);
        // The database takes many spellings for one address; all of them count for that account, and only its own spelling signs in.
        $meant = Person::query()->where('email', $given['email'])->first();
        SignInLimit::count($request, $given['email'], $meant);
        $person = $meant !== null && $meant->active && mb_strtolower($meant->email) === mb_strtolower($given['email']) ? $meant : null;
        // For a name that is not known, a password is compared all the same: then it takes as long.
        $right = Hash::check($given['password'], $person->password ?? (string) Person::query()->value('password'));
        if (! $right || $person === null) {
            return Problems::document(422, 'wrong_password', Words::say('That e-mail address and password do not belong together.'), [
                [
                    'at' => '/password', 'code' => 'wrong_password',
                    'message' => Words::say('That e-mail address and password do not belong together.'),
                ],
            ]);
        }
        $how = $this->secondly($person, $given['code'] ?? null);
        SignInLimit::forget($request, $given['email'], $person);

        return $this->door->letIn($request, $person, $how);
    }

    #[
        OA\Put(
            path: '/api/language',
            operationId: 'speak',
            description: 'Chooses the language in which one reads the application; null for that of the browser.',
            tags: ['session'],
            responses: [new Ok(Me::class)],
        ),
    ]
    public function speak(LanguageInput $request): Me
    {
        $person = $this->person($request);
        $person->update(['language' => $request->validated()['language'] ?? null]);

        return $this->door->me($person);
    }

    #[
        OA\Put(
            path: '/api/preferences',
            operationId: 'prefer',
            description: 'Chooses how one wants the screens; what is left out stays as it is.',
            tags: ['session'],
            responses: [new Ok(PreferencesResource::class)],
        ),
    ]
    public function prefer(PreferencesInput $request): PreferencesResource
    {
        $person = $this->person($request);
        $person->update(['preferences' => $request->validated() + ($person->preferences ?? [])]);

        return PreferencesResource::of($person);
    }

    #[OA\Delete(path: '/api/session', operationId: 'signOut', description: 'Ends the session.', tags: ['session'], responses: [new Ok])]
    public function destroy(Request $request): Response
    {
        Auth::guard('web')->logout();
        if ($request->hasSession()) {
            $request->session()->invalidate();
            $request->session()->regenerateToken();
        }

        return response()->noContent();
    }

    /**
     * @return string how they come in
     *
     * @throws DomainError at "/code"
     */
    private function secondly(Person $person, ?string $code): string
    {
        if ($person->second_factor === null) {
            return 'password';
        }
        if ($code === null || trim($code) === '') {
            throw new DomainError('code_wanted', Words::say('Give the code of your authenticator application.'), RefusedFor::Invalid, [
                ['at' => '/code', 'code' => 'code_wanted', 'message' => Words::say('Give the code of your authenticator application.')],
            ]);
        }

        return $this->factors->takes($person, $code) ?? throw new DomainError(
            'wrong_code', Words::say('That code is not right.'), RefusedFor::Invalid, [
                [
                    'at' => '/code', 'code' => 'wrong_code',
                    'message' => Words::say('That code is not right. Codes change every half minute.'),
                ],
            ]);
    }
}
