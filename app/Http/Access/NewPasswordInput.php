<?php

declare(strict_types=1);

namespace App\Http\Access;

use Illuminate\Foundation\Http\FormRequest;

final class NewPasswordInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['current' => 'required|string|max:1000', 'password' => 'required|string|max:1000'];
    }
}
