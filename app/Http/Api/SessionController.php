<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\Me;
use App\Http\Problems;
use App\Models\Person;
use App\Store\Company;
use App\Work\HouseClock;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
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

    #[OA\Get(path: '/api/session', operationId: 'me', tags: ['session'], responses: [new Ok(Me::class)])]
    public function show(Request $request): Me
    {
        return $this->me($this->person($request));
    }

    #[OA\Post(path: '/api/session', operationId: 'signIn', tags: ['session'], requestBody: new Body(['email' => 'string', 'password' => 'string']), responses: [new Ok(Me::class)])]
    public function store(Request $request): Me|JsonResponse
    {
        $given = $request->validate(['email' => 'required|string|max:190', 'password' => 'required|string|max:200']);
        if (! Auth::guard('web')->attempt(['email' => $given['email'], 'password' => $given['password'], 'active' => true])) {
            return Problems::document(422, 'wrong_password', 'That e-mail address and password do not belong together.', [
                ['at' => '/password', 'code' => 'wrong_password', 'message' => 'That e-mail address and password do not belong together.'],
            ]);
        }
        SignInLimit::forget($request);
        $request->session()->regenerate();
        $person = Auth::guard('web')->user();

        return $this->me($person instanceof Person ? $person : throw new \LogicException('Only people sign in.'));
    }

    #[OA\Delete(path: '/api/session', operationId: 'signOut', tags: ['session'], responses: [new Ok])]
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
            $person->id, $person->handle, $person->name, $person->email, $person->role->value, $this->company->name(), $this->company->zone()->getName(),
            Value::instantText($this->clock->now()), $person->role->mayEditRecords(), $person->role->mayEditRules(), $person->role->mayDoAllTasks(),
        );
    }
}
