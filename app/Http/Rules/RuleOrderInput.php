<?php

declare(strict_types=1);

namespace App\Http\Rules;

use Illuminate\Foundation\Http\FormRequest;

final class RuleOrderInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['recordType' => 'required|string', 'rules' => 'required|array|list', 'rules.*' => 'integer|min:1'];
    }
}
