import type { Occasion } from "./occasions";
import type { StartingText } from "./starting-text";

/** The texts that a business starts with, in Spanish. */
export const spanishTexts: Record<Occasion, StartingText> = {
  booked: {
    mail: {
      subject: "Reservado: {{service}}, {{day}}, {{window}}",
      body: "Hola, {{customer}}:\n\nSu visita está reservada: {{promise}} el {{day}} {{arrival}}, {{service}} {{where}}.\n\nTodo sobre esta visita está aquí: {{my_link}}\n\nHasta entonces,\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: reservado para el {{day}}, {{window}}, {{service}}. {{my_link}}",
  },
  received: {
    mail: {
      subject: "Tenemos su reserva: {{service}}, {{day}}, {{window}}",
      body: "Hola, {{customer}}:\n\nGracias. Tenemos su reserva para el {{day}} {{arrival}}: {{service}} {{where}}. Le guardamos la hora y se la confirmamos pronto.\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: tenemos su reserva para el {{day}}, {{window}}. Se la confirmamos pronto. {{my_link}}",
  },
  approved: {
    mail: {
      subject: "Confirmado: {{service}}, {{day}}, {{window}}",
      body: "Hola, {{customer}}:\n\nSu reserva está confirmada: {{promise}} el {{day}} {{arrival}}, {{service}} {{where}}.\n\nTodo sobre esta visita está aquí: {{my_link}}\n\nHasta entonces,\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: confirmado, {{day}}, {{window}}, {{service}}. {{my_link}}",
  },
  proposed: {
    mail: {
      subject: "Otra hora: {{service}}, {{day}}, {{window}}",
      body: "Hola, {{customer}}:\n\nLa hora que eligió no es posible, pero sí el {{day}} {{arrival}}. ¿Le viene bien? Díganoslo aquí o elija otra hora: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: le proponemos el {{day}}, {{window}}, para {{service}}. Acepte o elija otra hora: {{my_link}}",
  },
  declined: {
    mail: {
      subject: "No es posible: {{service}}, {{day}}",
      body: "Hola, {{customer}}:\n\nSentimos que {{service}} el {{day}} no sea posible: {{reason}}\n\nLo que haya pagado vuelve a su tarjeta. Llame al {{phone}} si podemos ayudarle de otra manera.\n\n{{business}}\n",
    },
    text: "{{business}}: lo sentimos, {{service}} el {{day}} no es posible: {{reason}} Llame al {{phone}}.",
  },
  moved: {
    mail: {
      subject: "Nueva hora: {{service}}, {{day}}, {{window}}",
      body: "Hola, {{customer}}:\n\nSu visita tiene una hora nueva: {{day}} {{arrival}} (antes: {{old}}). Si no le viene bien, elija otra aquí: {{my_link}}\nO llame al {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: su visita tiene una hora nueva, {{day}}, {{window}} (antes: {{old}}). {{my_link}}",
  },
  cancelled: {
    mail: {
      subject: "Cancelado: {{service}}, {{day}}",
      body: "Hola, {{customer}}:\n\nLa visita del {{day}}, {{window}}, está cancelada. Reserve otro día aquí: {{my_link}}\nO llame al {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: la visita del {{day}}, {{window}}, está cancelada. Otro día: {{my_link}}",
  },
  "deposit lapsed": {
    mail: {
      subject: "Sin reserva: no llegó la señal",
      body: "Hola, {{customer}}:\n\nLa señal para {{service}} el {{day}} no llegó, así que la hora vuelve a estar libre. No se ha cobrado nada. Puede reservar de nuevo cuando quiera.\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: la señal para el {{day}} no llegó y la hora vuelve a estar libre. No se ha cobrado nada.",
  },
  "visit reminder": {
    mail: {
      subject: "Recordatorio: {{day}}, {{window}}, {{service}}",
      body: "Hola, {{customer}}:\n\nLe recordamos que {{comes}} el {{day}} {{arrival}}: {{service}} {{where}}.{{#visits}}\n\nY el {{day}} {{arrival}}: {{service}}.{{/visits}}\n\nDíganos que estará, o lo que debamos saber: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: recordatorio, {{comes}} el {{day}}, {{window}}, {{service}}.{{#visits}} Y el {{day}}, {{window}}, {{service}}.{{/visits}} {{my_link}}",
    voice:
      "Hola, le llama {{business}}. Le recordamos que {{comes}} el {{day}} {{arrival}}, para {{service}}. Pulse 1 para confirmar. Si no le viene bien, llame al {{phone}}.",
  },
  "please confirm": {
    mail: {
      subject: "¿Estará usted? {{day}}, {{window}}, {{service}}",
      body: "Hola, {{customer}}:\n\nComo acordamos, {{comes}} el {{day}} {{arrival}}: {{service}} {{where}}.{{#visits}}\n\nY el {{day}} {{arrival}}: {{service}}.{{/visits}}\n\nResponda SÍ, o díganos aquí que estará o que necesita otra hora: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: {{comes}} el {{day}}, {{window}}, {{service}}.{{#visits}} Y el {{day}}, {{window}}.{{/visits}} Responda C para confirmar. Otra hora: {{my_link}}",
    voice:
      "Hola, le llama {{business}}. Queremos saber si el {{day}} {{arrival}} le sigue viniendo bien, para {{service}}. Pulse 1 para confirmar, o pulse 2 y le llamamos.",
  },
  "on the way": {
    mail: {
      subject: "En camino: {{service}}",
      body: "Hola, {{customer}}:\n\n{{#technician}}{{technician}} va de camino{{/technician}}{{^technician}}Vamos de camino{{/technician}} para {{service}}{{#expected}} y llegará hacia las {{expected}}{{/expected}}.\n\nQuién viene y cómo hablar con nosotros: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: {{#technician}}{{technician}} va de camino{{/technician}}{{^technician}}vamos de camino{{/technician}}{{#expected}}, hacia las {{expected}}{{/expected}}. {{my_link}}",
  },
  "running late": {
    mail: {
      subject: "Llegamos {{minutes}} minutos tarde",
      body: "Hola, {{customer}}:\n\nLo sentimos: la visita anterior se alarga. {{#technician_first}}{{technician_first}} llegará{{/technician_first}}{{^technician_first}}Llegaremos{{/technician_first}} unos {{minutes}} minutos más tarde{{#expected}}, hacia las {{expected}}{{/expected}}.\n\nSi no le viene bien, díganoslo: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: lo sentimos, llegamos unos {{minutes}} min tarde{{#expected}}, hacia las {{expected}}{{/expected}}. {{my_link}}",
    voice:
      "Hola, le llama {{business}}. Lo sentimos: llegamos unos {{minutes}} minutos tarde{{#expected}}, hacia las {{expected}}{{/expected}}. Si no le viene bien, llame al {{phone}}.",
  },
  "nobody home": {
    mail: {
      subject: "No le encontramos: {{service}}",
      body: "Hola, {{customer}}:\n\nSobre {{service}} de hoy, {{window}}: {{missed}}. Busquemos otra hora: {{my_link}}\nO llame al {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: {{missed}}. Otra hora: {{my_link}} o llame al {{phone}}.",
  },
  done: {
    mail: {
      subject: "Hecho: {{service}}",
      body: "Hola, {{customer}}:\n\n{{#technician}}{{technician}} estuvo hoy con usted{{/technician}}{{^technician}}Hoy estuvimos con usted{{/technician}} para {{service}} {{where}}.{{#done}}\n\nLo que se hizo:\n{{done}}{{/done}}{{#note}}\n\n{{note}}{{/note}}\n\nTodo queda guardado aquí: {{my_link}}\n\nGracias,\n{{business}}\n{{phone}}\n",
    },
  },
  "please review": {
    mail: {
      subject: "¿Qué tal fue? {{service}}",
      body: "Hola, {{customer}}:\n\nEl {{day}} estuvimos con usted: {{service}}. ¿Quedó contento, o hubo algo que no fue bien? Díganoslo en un minuto: {{my_link}}\n\nLeemos cada palabra, y respondemos si algo salió mal.\n\nGracias,\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: ¿qué tal fue {{service}}? Bien o mal, díganoslo en un minuto: {{my_link}}",
  },
  "review answered": {
    mail: {
      subject: "Nuestra respuesta: {{service}}",
      body: "Hola, {{customer}}:\n\nGracias por contarnos qué tal fue. Nuestra respuesta:\n\n{{reply}}\n\nTodo está aquí: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: gracias por contárnoslo. {{reply}} {{my_link}}",
  },
  "coming again": {
    mail: {
      subject: "Vuelve a tocar: {{service}}, {{day}}, {{window}}",
      body: "Hola, {{customer}}:\n\nVuelve a tocar: el {{day}} {{arrival}} {{comes}} para {{service}} {{where}}.\n\nLos detalles, y otra hora si esta no le viene bien: {{my_link}}\nO llame al {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: vuelve a tocar {{service}} el {{day}}, {{window}}. Otra hora: {{my_link}}",
  },
  "ask first": {
    mail: {
      subject: "¿Vuelve a tocar? {{service}}, hacia el {{day}}",
      body: "Hola, {{customer}}:\n\nSu próximo {{service}} {{where}} tocaría hacia el {{day}}. Aún no hay nada reservado: elija una hora que le venga bien, o díganos que esta vez no hace falta.\n\n{{my_link}}\n\nO llame al {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: {{service}} tocaría hacia el {{day}}. Elija una hora o diga que esta vez no: {{my_link}}",
  },
  "price review": {
    mail: {
      subject: "Desde el {{day}}: {{service}}, {{price}}",
      body: "Hola, {{customer}}:\n\nDesde el {{day}}, {{service}} {{where}} cuesta {{price}}. Hasta entonces sigue en {{old}}.\n\n¿Alguna pregunta? Llame al {{phone}}.\n\n{{business}}\n",
    },
  },
  offer: {
    mail: {
      subject: "¿Otra vez {{service}}?{{#off}} {{off}} menos hasta el {{until}}{{/off}}",
      body: "Hola, {{customer_first}}:\n\n{{#last_time}}La última vez que fuimos por {{service}} fue en {{last_time}}. {{/last_time}}¿Vamos también esta vez? Estas son las horas que aún tenemos hasta el {{until}}: {{my_link}}{{#off}}\n\nCon este enlace paga {{off}} menos.{{/off}}\n\n{{business}}\n{{phone}}\n\nNo más ofertas: {{stop_link}}\n",
    },
    text: "{{business}}: ¿otra vez {{service}}?{{#off}} {{off}} menos.{{/off}} Nuestras horas hasta el {{until}}: {{my_link}} STOP para no recibir más.",
  },
  "wish come true": {
    mail: {
      subject: "Ahora libre: {{day}}, {{window}}",
      body: "Hola:\n\nAhora hay libre una hora que le viene bien: {{day}}, {{window}}. Tómela con un toque, antes de que lo haga otro:\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: {{day}}, {{window}} está libre ahora. Tómelo con un toque: {{my_link}}",
  },
  quote: {
    mail: {
      subject: "{{#old}}Su presupuesto ha cambiado{{/old}}{{^old}}Su presupuesto{{/old}}: {{service}}, {{sum}}",
      body: "Hola, {{customer}}:\n\nEste es nuestro presupuesto{{#instead}}, en lugar de su reserva{{/instead}}: {{service}} en {{site}} por {{sum}}, hasta el {{until}}. Léalo, elija una hora y acéptelo aquí:\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: nuestro presupuesto para {{service}}, {{sum}}: {{my_link}}",
  },
  "quote follow-up": {
    mail: {
      subject: "Nuestro presupuesto del {{sent}}",
      body: "Hola, {{customer}}:\n\nNo hemos tenido noticias suyas sobre nuestro presupuesto para el trabajo en {{site}}. Vale hasta el {{until}}; después el precio puede ser otro. Vuelva a leerlo, elija una hora o díganos que no aquí:\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: nuestro presupuesto vale hasta el {{until}}. Sí o no: {{my_link}}",
  },
  "quote withdrawn": {
    mail: {
      subject: "Nuestro presupuesto",
      body: "Hola, {{customer}}:\n\nSentimos que nuestro presupuesto ya no valga: {{reason}}\n\n{{business}}\n{{phone}}\n",
    },
  },
  "request declined": {
    mail: {
      subject: "Su petición a {{business}}",
      body: "Hola, {{customer}}:\n\nSentimos no poder ayudarle con su petición: {{reason}}\n\n{{business}}\n{{phone}}\n",
    },
  },
  invoice: {
    mail: {
      subject: "Factura {{invoice}}: {{open}}",
      body: "Hola, {{customer}}:\n\nGracias. La factura {{invoice}} por {{service}} suma {{total}}; quedan {{open}} por pagar, con vencimiento el {{due}}.\n\nVéala y páguela aquí: {{my_link}}\n\n{{business}}\n",
    },
    text: "{{business}}: factura {{invoice}}, {{open}}, vence el {{due}}. Verla y pagar: {{my_link}}",
  },
  receipt: {
    mail: {
      subject: "Pagado: {{amount}}",
      body: "Hola, {{customer}}:\n\nHemos recibido {{amount}} por {{service}}. Gracias.\n\n{{my_link}}\n\n{{business}}\n",
    },
  },
  "invoice coming": {
    mail: {
      subject: "La factura {{invoice}} vence el {{due}}",
      body: "Hola, {{customer}}:\n\nUn aviso: la factura {{invoice}} vence el {{due}} y quedan {{open}} por pagar. Puede pagar aquí: {{my_link}}{{#others}}\n\n{{others}}{{/others}}\n\n{{business}}\n{{phone}}\n",
    },
  },
  "invoice reminder": {
    mail: {
      subject: "Recordatorio: factura {{invoice}}, {{open}}",
      body: "Hola, {{customer}}:\n\nLa factura {{invoice}} venció el {{due}} y aún quedan {{open}} por pagar. Puede pagar aquí: {{my_link}}{{#others}}\n\n{{others}}{{/others}}\n\nSi se ha cruzado con su pago, olvide este correo.\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: la factura {{invoice}} venció el {{due}}, quedan {{open}}. Pagar aquí: {{my_link}}",
  },
  "last reminder": {
    mail: {
      subject: "Último recordatorio: factura {{invoice}}, {{open}}",
      body: "Hola, {{customer}}:\n\nLa factura {{invoice}} venció el {{due}} y quedan {{open}} por pagar a pesar de nuestros recordatorios. Pague ahora, por favor: {{my_link}}{{#others}}\n\n{{others}}{{/others}}\n\n¿Hay algo mal en ella, o necesita más tiempo? Llame al {{phone}}: encontramos una solución. Si no, le llamaremos.\n\n{{business}}\n",
    },
    text: "{{business}}: último recordatorio, factura {{invoice}}, {{open}} desde el {{due}}. Pague o díganos: {{my_link}}",
  },
  "charge tomorrow": {
    mail: {
      subject: "El {{day}} cobramos {{amount}} de la factura {{invoice}}",
      body: "Hola, {{customer}}:\n\nComo acordamos, el {{day}} se cobran {{amount}} de la factura {{invoice}} a su {{card}}.\n\nSi no le viene bien, dígalo aquí antes, pague de otra manera o prometa un día: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: el {{day}} cobramos {{amount}} a su {{card}}, factura {{invoice}}. ¿Esta vez no? {{my_link}}",
  },
  "charge step": {
    mail: {
      subject: "Su banco quiere que confirme {{amount}}",
      body: "Hola, {{customer}}:\n\nSu banco le pide que confirme el cobro de {{amount}} a su {{card}}. Hágalo aquí, por favor: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: su banco quiere que confirme {{amount}}: {{my_link}}",
  },
  "charge failed": {
    mail: {
      subject: "No pudimos cobrar a su tarjeta",
      body: "Hola, {{customer}}:\n\nSu {{card}} no pudo pagar {{amount}}. Pague con otra tarjeta o díganos cuándo podrá: {{my_link}}\n\n¿Podemos ayudarle? Llame al {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: su {{card}} no pudo pagar {{amount}}. Pagar aquí: {{my_link}}",
  },
  "card expires": {
    mail: {
      subject: "Su {{card}} caduca en {{month}}",
      body: "Hola, {{customer}}:\n\nLa {{card}} que nos dejó solo puede cobrarse hasta finales de {{month}}. Deje otra aquí, por favor, para que no falte nada: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: su {{card}} caduca en {{month}}. Deje otra: {{my_link}}",
  },
  "answer understood": {
    mail: {
      subject: "Gracias: {{day}}, {{window}}",
      body: "Hola, {{customer}}:\n\nGracias, el {{day}} {{arrival}} está confirmado.{{#visits}}\n\nY el {{day}} {{arrival}}: {{service}}.{{/visits}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: gracias, el {{day}}, {{window}}, está confirmado.{{#visits}} Y el {{day}}, {{window}}.{{/visits}}",
  },
  "other times": {
    mail: {
      subject: "Otra hora para {{service}}",
      body: "Hola, {{customer}}:\n\nNo hay problema. Elija otra hora aquí, o cancele: {{my_link}}\n\nAdemás, uno de nosotros lee su respuesta.\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: no hay problema. Elija otra hora o cancele aquí: {{my_link}} Uno de nosotros lee su respuesta.",
  },
  stopped: {
    text: "{{business}}: no recibirá más textos nuestros. Escriba START para recibirlos de nuevo, o llame al {{phone}}.",
  },
  started: { text: "{{business}}: vuelve a recibir nuestros textos. Escriba STOP para terminarlos." },
  help: { text: "{{business}}, {{phone}}. Responda C para confirmar una visita. STOP termina nuestros textos." },
  question: {
    mail: {
      subject: "Su pregunta a {{business}}",
      body: "Hola, {{customer}}:\n\nGracias por su pregunta. Le respondemos pronto.{{#words}}\n\nUsted escribió: {{words}}{{/words}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: gracias por su pregunta. Le respondemos pronto.",
  },
  "new booking": {
    mail: {
      subject: "{{what}}: {{service}}, {{day}}, {{window}}",
      body: "{{who}}\n{{service}}, {{total}}\n{{day}}, {{window}}{{#more}}\n{{more}}{{/more}}{{#words}}\n“{{words}}”{{/words}}\n\n{{business}}\n",
    },
    text: "{{business}}: {{what}}: {{service}}, {{day}}, {{window}}. {{who}}.",
  },
  "office news": {
    mail: { subject: "{{what}}", body: "{{what}}\n{{who}}{{#more}}\n{{more}}{{/more}}\n\n{{business}}\n" },
    text: "{{business}}: {{what}}. {{who}}.",
  },
  "day changed": {
    mail: {
      subject: "El {{day}} ha cambiado",
      body: "{{#technician_first}}Hola, {{technician_first}}:\n\n{{/technician_first}}El {{day}} ha cambiado: {{what}}\n\n{{business}}\n",
    },
    text: "{{business}}, {{day}}: {{what}}",
  },
  "day ahead": {
    mail: {
      subject: "Mañana, {{day}}",
      body: "{{#technician_first}}Hola, {{technician_first}}:\n\n{{/technician_first}}Así es el {{day}}:{{#stops}}\n\n{{window}}, {{service}}\n{{who}}\n{{site}}{{/stops}}\n\n{{business}}\n",
    },
  },
  "day begins": {
    mail: {
      subject: "Hoy, {{day}}",
      body: "{{#technician_first}}Buenos días, {{technician_first}}:\n\n{{/technician_first}}Así es hoy:{{#stops}}\n\n{{window}}, {{service}}\n{{who}}\n{{site}}{{/stops}}{{#left_over}}\n\nQuedó pendiente: {{service}}, {{who}}, {{site}}{{/left_over}}\n\n{{business}}\n",
    },
  },
  "visit soon": { text: "{{business}}: {{window}}, {{service}}, {{who}}, {{site}}." },
  "to sign off": {
    mail: {
      subject: "Por firmar: {{service}}, {{day}}",
      body: "{{#technician}}{{technician}} ha{{/technician}}{{^technician}}Alguien ha{{/technician}} cerrado una visita que necesita su visto bueno.\n\n{{service}}, {{day}}\n{{who}}\n{{site}}\n\n{{business}}\n",
    },
  },
  "daily summary": {
    mail: {
      subject: "{{business}}, {{day}}",
      body: "Hoy:{{#figures}}\n{{name}}: {{value}}{{/figures}}{{#needs}}\n\nPor hacer: {{what}}{{/needs}}\n\n{{business}}\n",
    },
  },
  "weekly summary": {
    mail: {
      subject: "{{business}}, la semana hasta el {{day}}",
      body: "Esta semana:{{#figures}}\n{{name}}: {{value}}{{/figures}}{{#needs}}\n\nPor hacer: {{what}}{{/needs}}\n\n{{business}}\n",
    },
  },
};
