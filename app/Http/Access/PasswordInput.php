<?php

declare(strict_types=1);

namespace App\Http\Access;

use Illuminate\Foundation\Http\FormRequest;

final class PasswordInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['password' => 'required|string|max:1000'];
    }
}
