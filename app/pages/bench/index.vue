<script setup lang="ts">
import TicketList from '~/bench/TicketList.vue'
</script>

<template>
  <TicketList />
</template>
