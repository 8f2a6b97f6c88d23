<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Store\Access\AccessEntries;
use App\Store\Access\SecondFactor;
use App\Store\Access\SecondFactors;
use App\Store\DomainError;
use App\Store\People\Onboarding;
use App\Store\Setup\Company;
use Illuminate\Contracts\Session\Session;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Words\Words;

/** How somebody who is signed in comes in: their password, their second factor, where they are signed in. */
final class AccountSecurityController extends Controller
{
    public function __construct(
        private readonly Connection $db,
        private readonly SecondFactors $factors,
        private readonly AccessEntries $entries,
    ) {
    }

    #[OA\Put(path: '/api/password', operationId: 'changePassword', description: 'Takes another password. Every other place where one is '
        .'signed in is signed out.', tags: ['session'],
        responses: [new Ok])]
    public function password(NewPasswordInput $request, Onboarding $joining): Response
    {
        $person = $this->person($request);
        $given = $request->validated();
        PasswordConfirmation::mustBe($request, $person, $given['current'], '/current');
        $joining->change($person, $given['password']);
        SignIns::endAll($this->db, $person, self::session($request));

        return response()->noContent();
    }

    #[OA\Get(path: '/api/sign-ins', operationId: 'signIns', description: 'Where one is signed in.', tags: ['session'],
        responses: [new Ok(SignInResource::class, list: true)])]
    public function index(Request $request): JsonResponse
    {
        return new JsonResponse(array_map(
            static fn (array $one): SignInResource => new SignInResource(
                $one['mark'], $one['agent'], $one['address'], Value::instantText(new \DateTimeImmutable("@{$one['at']}")), $one['isThis'],
            ),
            SignIns::of($this->db, $this->person($request), self::session($request)),
        ));
    }

    #[OA\Delete(path: '/api/sign-ins/{mark}', operationId: 'endSignIn', description: 'Signs out somewhere.', tags: ['session'],
        responses: [new Ok])]
    public function end(string $mark, Request $request): Response
    {
        $person = $this->person($request);
        if (! SignIns::end($this->db, $person, $mark)) {
            throw DomainError::missing(Words::say('You are not signed in there any more.'));
        }
        $this->entries->write('signed_out', $person->id, ['person' => $person->id]);

        return response()->noContent();
    }

    #[OA\Post(path: '/api/second-factor/begin', operationId: 'beginSecondFactor', description: 'What an authenticator application is to be '
        .'given. Nothing is kept until a first code comes back.', tags: ['session'], responses: [new Ok(SecondFactorResource::class)])]
    public function begin(Request $request, Company $company): SecondFactorResource
    {
        $secret = SecondFactor::secret();

        return new SecondFactorResource($secret, SecondFactor::uri($secret, $company->name(), $this->person($request)->email));
    }

    #[OA\Post(path: '/api/second-factor', operationId: 'takeUpSecondFactor', description: 'Signing in asks for a code from now on; a first '
        .'one proves that it works.', tags: ['session'],
        responses: [new Ok(RecoveryCodes::class)])]
    public function takeUp(SecondFactorInput $request): RecoveryCodes
    {
        $person = $this->person($request);
        $given = $request->validated();
        PasswordConfirmation::mustBe($request, $person, $given['password']);

        return new RecoveryCodes($this->factors->takeUp($person, $given['secret'], $given['code']));
    }

    #[OA\Delete(path: '/api/second-factor', operationId: 'giveUpSecondFactor', description: 'Signing in asks for the password only.',
        tags: ['session'], responses: [new Ok])]
    public function giveUp(PasswordInput $request): Response
    {
        $person = $this->person($request);
        PasswordConfirmation::mustBe($request, $person, $request->validated()['password']);
        $this->factors->giveUp($person, $person->id);

        return response()->noContent();
    }

    private static function session(Request $request): ?string
    {
        $session = $request->hasSession() ? $request->session() : null;

        return $session instanceof Session ? $session->getId() : null;
    }
}
