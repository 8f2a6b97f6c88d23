<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\Me;
use App\Http\Input\SignInInput;
use App\Http\Problems;
use App\Models\Person;
use App\Store\Company;
use App\Store\HouseClock;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Hash;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;

/** Signing in and out. */
final class SessionController extends Controller
{
    public function __construct(
        private readonly Company $company,
        private readonly HouseClock $clock,
    ) {
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
        return $this->me($this->person($request));
    }

    #[
        OA\Post(
            path: '/api/session',
            operationId: 'signIn',
            description: 'Signs in with a session, from the application’s own pages.',
            tags: ['session'],
            requestBody: new Body(['email' => 'string', 'password' => 'string']),
            responses: [new Ok(Me::class)],
        ),
    ]
    public function store(SignInInput $request): Me|JsonResponse
    {
        $given = $request->validated();
        if (! $request->hasSession()) {
            return Problems::document(
                400,
                'no_session',
                'Only the application’s own pages sign in this way. A script brings a token: “Authorization: Bearer …”.',
            );
        }
        // The database takes many spellings for one address; all of them count for that account, and only its own spelling signs in.
        $meant = Person::query()->where('email', $given['email'])->first();
        SignInLimit::count($request, $given['email'], $meant);
        $person = $meant !== null && $meant->active && mb_strtolower($meant->email) === mb_strtolower($given['email']) ? $meant : null;
        // For a name that is not known, a password is compared all the same: then it takes as long.
        $right = Hash::check($given['password'], $person->password ?? (string) Person::query()->value('password'));
        if (! $right || $person === null) {
            return Problems::document(422, 'wrong_password', 'That e-mail address and password do not belong together.', [
                ['at' => '/password', 'code' => 'wrong_password', 'message' => 'That e-mail address and password do not belong together.'],
            ]);
        }
        SignInLimit::forget($request, $given['email'], $person);
        Auth::guard('web')->login($person);
        $request->session()->regenerate();

        return $this->me($person);
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

    private function me(Person $person): Me
    {
        return new Me(
            $person->id, $person->handle, $person->name, $person->email, $person->role->value, $this->company->name(),
            $this->company->zone()->getName(),
            Value::instantText($this->clock->now()), $person->role->mayEditRecords(), $person->role->mayEditRules(),
            $person->role->mayDoAllTasks(),
            (int) config('limits.file_bytes'), config('ledger.mail.room') === true,
        );
    }
}
