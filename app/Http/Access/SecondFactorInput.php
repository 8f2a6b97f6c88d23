<?php

declare(strict_types=1);

namespace App\Http\Access;

use Illuminate\Foundation\Http\FormRequest;

final class SecondFactorInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'secret' => ['required', 'string', 'regex:/^[A-Z2-7]{32}$/D'], 'code' => 'required|string|max:20',
            'password' => 'required|string|max:1000',
        ];
    }
}
