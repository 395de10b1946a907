<script setup lang="ts">
import TicketPage from '~/bench/TicketPage.vue'
</script>

<template>
  <TicketPage />
</template>
