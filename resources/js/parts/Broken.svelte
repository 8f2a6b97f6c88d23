<script lang="ts">
    import { say } from '../state/words';
    /** Stands where something could not be shown, so that the rest of the screen goes on. */
    let { what = say('row'), again }: { what?: string; again?: () => void } = $props();
</script>

<div class="line min-h-0!" role="alert">
    <div class="m"></div>
    <div class="b text-[12.5px]! text-madder">
        This {what} could not be shown. The rest of the screen is as it should be.
        {#if again}<button type="button" class="link" onclick={again}>Try again</button>{/if}
    </div>
</div>
